"use client";

/** Whether the browser promises to keep what this device stores, even where space gets short; undefined where it does not say. */
export const isPersisted = async (): Promise<boolean | undefined> => navigator.storage?.persisted?.();

/** Asks the browser for that promise. @returns its answer. */
export const askToPersist = async (): Promise<boolean | undefined> => navigator.storage?.persist?.();
