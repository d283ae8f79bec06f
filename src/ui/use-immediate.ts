import { useEffect, useState, useTransition } from "react";

/**
 * What a hand moves or types shows at once; what follows from it is drawn when there is time for it.
 * @returns the value as it stands under the hand, and what to call when it changes.
 */
export function useImmediate<T>(value: T, onChange: (next: T) => void): readonly [T, (next: T) => void] {
  const [shown, setShown] = useState(value);
  const [pending, start] = useTransition();
  // What came from elsewhere is shown once nothing of the hand's own is on its way.
  useEffect(() => {
    if (!pending) setShown(value);
  }, [value, pending]);
  return [
    shown,
    (next) => {
      setShown(next);
      start(() => onChange(next));
    },
  ];
}
