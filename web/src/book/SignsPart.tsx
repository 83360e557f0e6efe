import { useQuery } from "@tanstack/react-query";
import { Select } from "antd";
import { useRef, useState } from "react";
import type { SignLine } from "../api/client";
import * as queries from "../api/queries";
import { PictureView } from "../drawing/PictureView";
import { SignCauses } from "./SignCauses";
import { SignPicker } from "./SignPicker";
import { useSigns } from "./useSigns";
import styles from "./book.module.css";

/** Whoever is not signed in looks at a body by proportion. */
const NOBODY = { name: "somebody" };

/** Everything that cloth says, on the body of whoever is chosen. */
export function SignsPart() {
  const wearers = useQuery({ ...queries.wearers, retry: false });
  const [who, setWho] = useState<string | null>(null);
  const [picked, setPicked] = useState<SignLine["sign"] | null>(null);
  const article = useRef<HTMLElement>(null);
  const chosen = wearers.data?.find((one) => one.id === who) ?? wearers.data?.[0];
  const wearer = chosen?.wearer ?? NOBODY;
  const all = useSigns(wearer, null).data?.places.flatMap((place) => place.signs) ?? [];
  const open = all.find((sign) => sign.sign === picked) ?? all[0];
  return (
    <>
      {(wearers.data ?? []).length > 0 && (
        <label className={styles["on-whom"]}>
          drawn on{" "}
          <Select
            aria-label="On whom"
            value={chosen?.id ?? null}
            options={(wearers.data ?? []).map((one) => ({ value: one.id, label: one.wearer.name }))}
            onChange={setWho}
          />
        </label>
      )}
      <div className={styles["two"]}>
        <SignPicker
          wearer={wearer}
          garment={null}
          picked={open?.sign ?? null}
          onPick={(sign) => {
            setPicked(sign.sign);
            article.current?.scrollIntoView({ block: "nearest" });
          }}
        />
        {open && (
          <article ref={article} className={styles["open"]} aria-live="polite">
            <h2>{open.name}</h2>
            {open.picture && <PictureView picture={open.picture} label={open.name} />}
            <SignCauses causes={open.causes} />
            <p className="quiet">
              In a try-on, note it under What was seen: there it leads to the seam it may come from.
            </p>
          </article>
        )}
      </div>
    </>
  );
}
