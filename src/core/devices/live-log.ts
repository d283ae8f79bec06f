import type { ChannelId, ScanLog } from "../scan-log";
import type { LiveRow } from "./device";

/** Rows that are made room for at first; it doubles when they are full. */
const ROOM = 1024;
/** An hour at five rows a second: what comes later is left out, and said. */
const MOST_ROWS = 18_000;

/** Rows from a live device, kept as a log: whatever reads a log that was recorded reads this one as it grows. */
export class LiveLog {
  private rows = 0;
  private room = ROOM;
  private readonly columns: Map<ChannelId, Float64Array>;

  /** @param channels that the device reads; others are left out. */
  constructor(channels: readonly ChannelId[]) {
    this.columns = new Map((["time", ...channels] as ChannelId[]).map((id) => [id, new Float64Array(ROOM)]));
  }

  /** Takes a row; one that is no later than the last is left out, as is what comes after an hour. @returns whether it was taken. */
  push({ at, values }: LiveRow): boolean {
    const time = this.columns.get("time") as Float64Array;
    if (!Number.isFinite(at) || (this.rows > 0 && at <= (time[this.rows - 1] as number)) || this.rows >= MOST_ROWS) return false;
    if (this.rows === this.room) this.grow();
    for (const [id, column] of this.columns) column[this.rows] = id === "time" ? at : (values[id] ?? Number.NaN);
    this.rows++;
    return true;
  }

  /** All of it as it stands. */
  get log(): ScanLog {
    const ids = [...this.columns.keys()];
    return {
      dialect: { delimiter: ",", decimal: ".", skip: 0, headers: ids },
      signature: "live",
      rows: this.rows,
      notes: this.rows >= MOST_ROWS ? ["an hour is kept: what came later is left out"] : [],
      columns: ids.map((id, column) => ({
        column,
        header: id,
        channel: id,
        confidence: 1,
        values: (this.columns.get(id) as Float64Array).subarray(0, this.rows),
        textCells: 0,
      })),
    };
  }

  private grow(): void {
    this.room *= 2;
    for (const [id, column] of this.columns) {
      const larger = new Float64Array(this.room);
      larger.set(column);
      this.columns.set(id, larger);
    }
  }
}
