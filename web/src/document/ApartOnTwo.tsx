import { Alert, Button } from "antd";
import { clsx } from "clsx";
import type { TryOn } from "../api/client";
import type { Kept } from "./useKept";
import styles from "./document.module.css";

/** What two devices changed differently, each named; everything else is kept from both. */
export function ApartOnTwo({ kept }: { kept: Kept<TryOn> }) {
  const apart = kept.problem?.apart ?? [];
  if (apart.length === 0) return null;
  return (
    <Alert
      className={clsx(styles["conflict"])}
      type="warning"
      showIcon
      title="Two devices changed the same"
      description={
        <>
          <ul>
            {apart.map((one) => (
              <li key={one.what}>
                {one.what}: <strong>{one.mine}</strong> here, <strong>{one.theirs}</strong> there
              </li>
            ))}
          </ul>
          <p>Everything else is kept from both.</p>
          <Button
            onClick={() => {
              kept.decide("theirs");
            }}
          >
            Take what is there
          </Button>{" "}
          <Button
            type="primary"
            onClick={() => {
              kept.decide("mine");
            }}
          >
            Keep what is here
          </Button>
        </>
      }
    />
  );
}
