import { useEffect, useRef, useState, useTransition } from "react";

/**
 * What a hand moves or types shows at once; what follows from it is drawn when there is time for it.
 * @returns the value as it stands under the hand, and what to call when it changes.
 */
export function useImmediate<T>(value: T, onChange: (next: T) => void): readonly [T, (next: T) => void] {
  const [shown, setShown] = useState(value);
  const [, start] = useTransition();
  // How often the hand has changed it, and how many of these changes what is drawn has followed.
  const made = useRef(0);
  const [followed, setFollowed] = useState(0);
  // What came from elsewhere is shown once nothing of the hand's own is on its way: a value that lags behind the hand would
  // take back what was typed since.
  useEffect(() => {
    if (followed === made.current) setShown(value);
  }, [value, followed]);
  return [
    shown,
    (next) => {
      made.current++;
      const mine = made.current;
      setShown(next);
      start(() => {
        onChange(next);
        setFollowed(mine);
      });
    },
  ];
}
