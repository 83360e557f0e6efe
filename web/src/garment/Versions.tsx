import { DeleteOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Input } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import {
  answer,
  api,
  problemOf,
  type Document,
  type SolvedTryOn,
  type TryOn,
  type Version,
} from "../api/client";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { documentOf } from "../document/changes";
import { useWords } from "../document/useWords";
import type { WhatIf } from "../document/useWhatIf";
import styles from "./lines.module.css";
import sheet from "../shell/sheet.module.css";

interface Props {
  garment: Document;
  /** What is kept or tried out just now. */
  whatIf: WhatIf;
}

/** The changes of a version in place of those of its try-on. */
const withChanges = (tryOn: TryOn, { changes }: Version): TryOn => ({ ...tryOn, changes: changes ?? [] });

/** Ways that were tried out: kept under a name, looked at again, compared, taken. */
export function Versions({ garment, whatIf }: Props) {
  const [name, setName] = useState("");
  const tryOn = whatIf.value;
  const versions = tryOn.versions ?? [];
  const keep = () => {
    const called = name.trim();
    if (!called) return;
    const version: Version = { name: called, changes: tryOn.changes ?? [] };
    const others = versions.filter((v) => v.name !== called);
    whatIf.change({ ...tryOn, versions: [...others, version] });
    setName("");
  };
  return (
    <section className="sheet" aria-label="Versions">
      <div className={sheet["section-head"]}>
        <h2>Versions</h2>
        <small className="quiet">Keep these lines under a name, change them, and compare.</small>
      </div>
      <form
        className={styles["version-name"]}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Input
          aria-label="Name of this version"
          placeholder="name, e.g. a little looser"
          value={name}
          maxLength={120}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <Button htmlType="submit" disabled={!name.trim()}>
          Keep as a version
        </Button>
      </form>
      {versions.length > 0 && (
        <Compared
          garment={garment}
          tryOn={tryOn}
          versions={versions}
          onTake={(version) => {
            whatIf.begin(withChanges(tryOn, version));
          }}
          onRemove={(version) => {
            whatIf.change({ ...tryOn, versions: versions.filter((v) => v !== version) });
          }}
        />
      )}
    </section>
  );
}

interface ComparedProps {
  garment: Document;
  tryOn: TryOn;
  versions: Version[];
  onTake: (version: Version) => void;
  onRemove: (version: Version) => void;
}

function Compared({ garment, tryOn, versions, onTake, onRemove }: ComparedProps) {
  const { tape } = useSettings();
  const words = useWords();
  const solved = useQuery({
    queryKey: ["versions", garment.states, garment.wearer, tryOn, tape],
    queryFn: () => {
      const bare = { ...tryOn, versions: [] };
      const body = documentOf(garment, [bare, ...versions.map((v) => withChanges(bare, v))]);
      return answer(api.POST("/api/v1/solve", { params: { query: { tape } }, body }));
    },
    placeholderData: (before) => before,
    gcTime: 0,
  });
  if (solved.isError) return <p className="field-trouble">{problemOf(solved.error).detail}</p>;
  const all = solved.data?.try_ons;
  if (!all) return null;
  const rows = all[0]?.levels ?? [];
  const after = (result: SolvedTryOn, level: string, of: string) =>
    (
      result.levels.find((l) => l.level === level && l.of === of) ??
      result.levels.find((l) => l.level === level)
    )?.after.text ?? "–";
  const count = (result: SolvedTryOn) => {
    const open = result.checks.filter((c) => c.outcome !== "passes" && !c.passed_over);
    const stops = open.filter((c) => c.outcome === "stop").length;
    return `${stops} stops, ${open.length - stops} cautions`;
  };
  return (
    <div className={sheet["compared"]}>
      <table className={sheet["facts"]}>
        <thead>
          <tr>
            <th />
            <th scope="col">as shown</th>
            {versions.map((version) => (
              <th key={version.name} scope="col">
                {version.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const cells = all.map((result) => after(result, row.level, row.of));
            const differs = new Set(cells).size > 1;
            return (
              <tr key={row.level + row.of} className={clsx(differs && sheet["changed-row"])}>
                <th scope="row">
                  {words.of("level", row.level)}, {words.of("level_of", row.of)}
                </th>
                {cells.map((cell, index) => (
                  <td key={index} className="figure">
                    <Words>{cell}</Words>
                  </td>
                ))}
              </tr>
            );
          })}
          <tr>
            <th scope="row">checks</th>
            {all.map((result, index) => (
              <td key={index}>{count(result)}</td>
            ))}
          </tr>
          <tr>
            <th />
            <td />
            {versions.map((version) => (
              <td key={version.name}>
                <Button
                  size="small"
                  onClick={() => {
                    onTake(version);
                  }}
                >
                  Look at it
                </Button>
                <Button
                  size="small"
                  type="text"
                  icon={<DeleteOutlined />}
                  aria-label={`Take out the version ${version.name}`}
                  onClick={() => {
                    onRemove(version);
                  }}
                />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
