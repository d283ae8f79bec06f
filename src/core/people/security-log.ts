/** Events at the doors that a lead should know of. */
export const SECURITY_EVENTS = {
  "wrong-pin": "Wrong PIN",
  "wrong-passphrase": "Wrong passphrase or code",
  "device-in": "Device connected",
  "device-out": "Device removed",
  "person-added": "Person added",
  "person-changed": "Role or standing changed",
  "pin-changed": "PIN changed",
  "limits-changed": "Limits, methods or machines changed",
  "job-imported": "Job file imported",
  "shop-imported": "Shop archive imported",
  "queue-imported": "Queue file of a device imported",
  "job-exported": "Job file exported",
  "shop-exported": "Shop archive exported",
  "customer-erased": "Customer erased",
  restored: "Backup restored",
} as const;
export type SecurityEvent = keyof typeof SECURITY_EVENTS;

/** One line of the log; texts are empty where nothing is known. */
export interface SecurityLine {
  readonly id: number;
  readonly at: string;
  readonly what: SecurityEvent;
  readonly who: string;
  readonly device: string;
  readonly detail: string;
}
