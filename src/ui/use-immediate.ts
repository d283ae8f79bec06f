import { useRef, useState, useTransition } from "react";

/**
 * State that shows a change by hand at once; what follows from it is drawn when there is time for it.
 * @returns the value as it stands under the hand, and what to call when it changes.
 */
export function useImmediate<T>(value: T, onChange: (next: T) => void): readonly [T, (next: T) => void] {
  const [, start] = useTransition();
  // Each change by hand has its number, and what follows from it comes with the same one.
  const changes = useRef(0);
  const [byHand, setByHand] = useState({ change: 0, next: value });
  const [followed, setFollowed] = useState(0);
  return [
    // A value that lags behind the hand would take back what was typed since. Where nothing of the hand's own is on its way
    // it is shown in the very drawing it comes in.
    byHand.change === followed ? value : byHand.next,
    (next) => {
      changes.current++;
      const change = changes.current;
      setByHand({ change, next });
      start(() => {
        onChange(next);
        setFollowed(change);
      });
    },
  ];
}
