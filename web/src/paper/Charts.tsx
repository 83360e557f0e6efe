import { Button, Input, Segmented } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import {
  answer,
  api,
  problemOf,
  type BodyMeasurement,
  type ChartTable,
  type Complaint,
  type Pattern,
  type Sizes,
} from "../api/client";
import { LengthField } from "../document/LengthField";
import { useSettings } from "../settings";
import { ChooseFile } from "../shell/ChooseFile";
import sheet from "../shell/sheet.module.css";
import styles from "./paper.module.css";

interface Props {
  sizes: Sizes;
  pattern: Pattern;
  onSet: (part: Partial<Pattern>) => void;
}

type Unit = "cm" | "in";

/** What is printed with the pattern: its charts, its allowance, and what paper held to the body said. */
export function Charts({ sizes, pattern, onSet }: Props) {
  const charts = pattern.charts ?? [];
  // The chart that is open: its place, or one more.
  const [open, setOpen] = useState<number | null>(charts.length === 0 ? 0 : null);
  const put = (place: number, chart: NonNullable<Pattern["charts"]>[number] | null) => {
    const others = charts.filter((_, n) => n !== place);
    onSet({ charts: chart ? [...others.slice(0, place), chart, ...others.slice(place)] : others });
    setOpen(null);
  };
  return (
    <section className={clsx("sheet", styles["charts"])} aria-label="What is printed with the pattern">
      <h2>Printed with the pattern</h2>
      {sizes.charts.map((chart, n) =>
        open === n ? (
          <ChartEditor
            key={n}
            start={asText(chart)}
            onRead={(read) => {
              put(n, read);
            }}
            onClose={() => {
              setOpen(null);
            }}
          />
        ) : (
          <ChartView
            key={n}
            chart={chart}
            onEdit={() => {
              setOpen(n);
            }}
            onRemove={() => {
              put(n, null);
            }}
          />
        ),
      )}
      {open === charts.length ? (
        <ChartEditor
          start=""
          onRead={(read) => {
            put(charts.length, read);
          }}
          onClose={
            charts.length > 0
              ? () => {
                  setOpen(null);
                }
              : null
          }
        />
      ) : (
        <Button
          onClick={() => {
            setOpen(charts.length);
          }}
        >
          {charts.length === 0 ? "Enter its chart" : "Another chart: a fuller range"}
        </Button>
      )}
      <div className={styles["beside"]}>
        <div className={styles["named"]}>
          <span>
            Seam allowance of its pieces <small className="quiet">per edge</small>
          </span>
          <LengthField
            label="Seam allowance of the pieces, per edge"
            shown={pattern.allowance ? sizes.allowance.text : ""}
            placeholder={`${sizes.allowance.text}, usually`}
            onRead={(allowance) => {
              onSet({ allowance });
            }}
            onEmpty={() => {
              onSet({ allowance: null });
            }}
          />
        </div>
        <Held sizes={sizes} pattern={pattern} onSet={onSet} />
      </div>
    </section>
  );
}

/** A chart as it can be typed again. */
function asText(chart: ChartTable) {
  const lines = [[chart.name, ...chart.sizes], ...chart.rows.map((row) => [row.name, ...row.cells])];
  return lines.map((cells) => cells.join("\t")).join("\n");
}

interface ViewProps {
  chart: ChartTable;
  onEdit: () => void;
  onRemove: () => void;
}

function ChartView({ chart, onEdit, onRemove }: ViewProps) {
  return (
    <div className={styles["chart"]}>
      <div className={sheet["section-head"]}>
        <h3>{chart.name || "Its chart"}</h3>
        <div className={sheet["tools"]}>
          <Button size="small" onClick={onEdit}>
            Edit
          </Button>
          <Button size="small" onClick={onRemove}>
            Take away
          </Button>
        </div>
      </div>
      <div className={styles["scroll"]}>
        <table>
          <thead>
            <tr>
              <th scope="col">size</th>
              {chart.sizes.map((size) => (
                <th key={size} scope="col">
                  {size}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {chart.rows.map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}</th>
                {row.cells.map((cell, n) => (
                  <td key={n} className="figure">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

interface EditorProps {
  start: string;
  onRead: (chart: NonNullable<Pattern["charts"]>[number]) => void;
  onClose: (() => void) | null;
}

/** A chart is typed, pasted, or read from a file: one line for each measurement. What cannot be read stays, with the reason. */
function ChartEditor({ start, onRead, onClose }: EditorProps) {
  const { tape } = useSettings();
  const [text, setText] = useState(start);
  const [unit, setUnit] = useState<Unit | null>(null);
  const [wrong, setWrong] = useState<Complaint | null>(null);
  const read = async () => {
    try {
      const body = { text, unit };
      onRead(await answer(api.POST("/api/v1/charts", { params: { query: { tape } }, body })));
    } catch (error) {
      const problem = problemOf(error);
      setWrong(problem.errors?.[0] ?? { path: "", found: problem.title, expected: problem.detail });
    }
  };
  return (
    <div className={styles["editor"]}>
      <p className="quiet">
        First its name and sizes, then a line for each measurement. Paste it from a table, or type it with
        commas between.
      </p>
      <Input.TextArea
        aria-label="The chart"
        autoSize={{ minRows: 6, maxRows: 16 }}
        spellCheck={false}
        className="figure"
        maxLength={20000}
        placeholder={
          "regular, 10, 12, 14\nwaist body, 71, 75, 79\nwaist finished, 73, 77, 81\nback neck to waist, 40, 40.5, 41\nfinished length, 96, 97, 98"
        }
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWrong(null);
        }}
      />
      <div className={styles["editor-tools"]}>
        <span id="chart-unit">Its figures are in</span>
        <Segmented<Unit | "">
          aria-labelledby="chart-unit"
          options={[
            { value: "cm", label: "cm" },
            { value: "in", label: "inches" },
          ]}
          value={unit ?? ""}
          onChange={(picked) => {
            setUnit(picked === "" ? null : picked);
            setWrong(null);
          }}
        />
        <ChooseFile
          label="Read a chart from a file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          onFile={(file) => void file.text().then(setText)}
        >
          From a file
        </ChooseFile>
        <Button type="primary" disabled={text.trim() === ""} onClick={() => void read()}>
          Read it
        </Button>
        {onClose && <Button onClick={onClose}>Leave it</Button>}
      </div>
      {wrong && (
        <p className="field-trouble" role="alert">
          {wrong.path && `${wrong.path}: `}
          {wrong.found}. Expected {wrong.expected}.
        </p>
      )}
    </div>
  );
}

/** Paper held to the body: by how much it was too short, or too long. */
function Held({ sizes, pattern, onSet }: Props) {
  const held = pattern.held ?? [];
  const set = (what: BodyMeasurement, by: string | null) => {
    const others = held.filter((h) => h.what !== what);
    onSet({ held: by === null ? others : [...others, { what, by }] });
  };
  return (
    <>
      {sizes.held.map((length) => (
        <div key={length.what} className={styles["named"]}>
          <span>
            Held to the body: {length.name} <small className="quiet">too short by; −1 is too long</small>
          </span>
          <LengthField
            label={`Paper too short by, ${length.name}`}
            shown={length.by?.text ?? ""}
            onRead={(by) => {
              set(length.what, by);
            }}
            onEmpty={() => {
              set(length.what, null);
            }}
          />
        </div>
      ))}
    </>
  );
}
