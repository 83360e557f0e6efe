import { App } from "antd";
import { useEffect, useState } from "react";

/** A reading of the digital tape. */
export interface FromTape {
  reading: string;
  /** Counts, so that the same figure twice is two readings. */
  number: number;
}

/** Says so when the tape sends a reading that no field waits for. */
export function useNobodyWaits(fromTape: FromTape | null) {
  const { message } = App.useApp();
  const [first] = useState(fromTape?.number);
  const number = fromTape?.number;
  const reading = fromTape?.reading;
  useEffect(() => {
    if (number === undefined || number === first) return;
    void message.info(
      `The tape says ${reading ?? ""}, but no number is asked for here. It is not entered.`,
      6,
    );
  }, [first, number, reading, message]);
}
