export interface Table {
  delimiter: string;
  decimal: "." | ",";
  header: string[];
  units?: string[];
  preamble?: string[];
  repeatHeaderEvery?: number;
  bom?: boolean;
  utf16?: boolean;
  rows: (string | number)[][];
}

/** Writes a table as one of the dialects scan tools use. */
export function writeTable(table: Table): Uint8Array {
  const number = (cell: string | number) => (table.decimal === "," ? String(cell).replace(".", ",") : String(cell));
  const head = table.header.join(table.delimiter);
  const lines = [...(table.preamble ?? []), head, ...(table.units ? [table.units.join(table.delimiter)] : [])];
  table.rows.forEach((row, i) => {
    if (table.repeatHeaderEvery && i > 0 && i % table.repeatHeaderEvery === 0) lines.push(head);
    lines.push(row.map(number).join(table.delimiter));
  });
  const text = `${table.bom ? "\uFEFF" : ""}${lines.join("\r\n")}\r\n`;
  if (!table.utf16) return new TextEncoder().encode(text);
  const bytes = new Uint8Array(2 + text.length * 2);
  bytes.set([0xff, 0xfe]);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    bytes[2 + 2 * i] = code & 0xff;
    bytes[3 + 2 * i] = code >> 8;
  }
  return bytes;
}
