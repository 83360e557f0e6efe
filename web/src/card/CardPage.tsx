import { ArrowLeftOutlined, DownloadOutlined, PrinterOutlined } from "@ant-design/icons";
import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Popover, Segmented, Skeleton, Space } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import {
  answer,
  api,
  problemOf,
  type Block,
  type Card,
  type CardDrawing,
  type CardTable,
  type TryOn,
} from "../api/client";
import { ApartOnTwo } from "../document/ApartOnTwo";
import { documentOf } from "../document/changes";
import { Saved } from "../document/Saved";
import { useGarment, type Opened } from "../document/useGarment";
import { useTryOn, type OneTryOn } from "../document/useTryOn";
import { Words } from "../drawing/Words";
import { useSettings } from "../settings";
import { LinkButton } from "../shell/LinkButton";
import { Trouble } from "../shell/Trouble";
import styles from "./card.module.css";

type Paper = "A5" | "A4" | "letter";
type Row = CardTable["rows"][number];

/** What is chalked of a card, and how that is said. */
interface Chalk {
  isChalked: (row: Row) => boolean;
  tick: (row: Row, on: boolean) => void;
}

/** The chalk card: what lies beside the cloth, in the order in which the hand moves. */
export default function CardPage() {
  const { garment = "" } = useParams();
  const [search] = useSearchParams();
  const opened = useGarment(garment, "card");
  if (opened.isPending) return <Waiting />;
  if (opened.isError)
    return <Trouble problem={problemOf(opened.error)} retry={() => void opened.refetch()} />;
  const { tryOns } = opened.data;
  const one = tryOns.find((t) => t.id === search.get("try-on")) ?? tryOns.at(-1);
  return one ? <OfTryOn key={opened.dataUpdatedAt} opened={opened.data} one={one} /> : null;
}

function Waiting() {
  return (
    <main className={styles["page"]}>
      <Skeleton active paragraph={{ rows: 12 }} />
    </main>
  );
}

/** The card of one try-on: what is chalked is kept with it, and seen wherever it is open. */
function OfTryOn({ opened, one }: { opened: Opened; one: OneTryOn }) {
  const { change = "" } = useParams();
  const { tape } = useSettings();
  const [paper, setPaper] = useState<Paper>("A5");
  const kept = useTryOn(one, { atOnce: true });
  const tryOn = kept.value;
  const garment = opened.state.id;
  const { document } = opened.state;
  const solved = useQuery({
    queryKey: ["card", document.states, document.wearer, tryOn, tape],
    queryFn: () =>
      answer(
        api.POST("/api/v1/solve", {
          params: { query: { tape, cards: true } },
          body: documentOf(document, [tryOn]),
        }),
      ),
    gcTime: 0,
    placeholderData: (before) => before,
  });
  if (solved.isPending) return <Waiting />;
  if (solved.isError)
    return <Trouble problem={problemOf(solved.error)} retry={() => void solved.refetch()} />;
  const card = solved.data.try_ons[0]?.cards.find((c) => c.key === change);
  if (!card) {
    const name = solved.data.changeable.find((c) => c.key === change)?.name ?? "change";
    const detail = `There is nothing on the ${name} yet. Enter it under Lines, then come back.`;
    return <Trouble problem={{ type: "empty", title: "Nothing to chalk", status: 404, detail }} />;
  }
  const href = (format: string) =>
    `/api/v1/garments/${garment}/try-ons/${one.id}/cards?${new URLSearchParams({ format, card: change, tape, paper: paper.toLowerCase() }).toString()}`;
  const chalk: Chalk = {
    isChalked: (row) => tryOn.chalked?.some((c) => c.change === card.key && row.at.includes(c.at)) ?? false,
    tick: (row, on) => {
      kept.change(chalked(tryOn, card, row, on));
    },
  };
  return (
    <main className={styles["page"]}>
      {/* The paper is chosen here, not by whoever prints. */}
      <style>{`@page { size: ${paper}; margin: 9mm; }`}</style>
      <div className={styles["tools"]}>
        <LinkButton to={`/garments/${garment}/lines?try-on=${one.id}`} icon={<ArrowLeftOutlined />}>
          Lines
        </LinkButton>
        <Segmented<Paper>
          aria-label="Paper"
          options={["A5", "A4", { value: "letter", label: "Letter" }]}
          value={paper}
          onChange={setPaper}
        />
        <Files files={FILES} label="Save as" href={href} />
        {card.at_true_size && (
          <span className={styles["true-size"]}>
            at true size <Files files={TRUE_SIZE} label="Save at true size as" href={href} />
          </span>
        )}
        <Button
          type="primary"
          icon={<PrinterOutlined />}
          onClick={() => {
            print();
          }}
        >
          Print
        </Button>
        <Saved isStored={kept.isStored} problem={kept.problem} onRetry={kept.retry} />
      </div>
      <ApartOnTwo kept={kept} />
      <article className={clsx(styles["chalk-card"], styles[`paper-${paper}`])}>
        <header>
          <h1>{card.title}</h1>
          <p>{card.garment}</p>
        </header>
        {grouped(card.blocks).map((blocks, index) => (
          <Blocks key={index} blocks={blocks} chalk={chalk} />
        ))}
      </article>
    </main>
  );
}

/** The try-on with a row of a card chalked, or not any more. */
function chalked(tryOn: TryOn, card: Card, row: Row, on: boolean): TryOn {
  const others = (tryOn.chalked ?? []).filter((c) => c.change !== card.key || !row.at.includes(c.at));
  const here = row.at.map((at) => ({ change: card.key, at }));
  return { ...tryOn, chalked: on ? [...others, ...here] : others };
}

const kindOf = (block: Block) => Object.keys(block)[0];

/** Lines and cautions that follow each other stand in one list. */
function grouped(blocks: Block[]): Block[][] {
  const groups: Block[][] = [];
  for (const block of blocks) {
    const last = groups.at(-1);
    const first = last?.[0];
    const goesOn = first && kindOf(first) === kindOf(block) && ("line" in block || "caution" in block);
    if (goesOn) last.push(block);
    else groups.push([block]);
  }
  return groups;
}

/** Blocks of one kind, painted. */
function Blocks({ blocks, chalk }: { blocks: Block[]; chalk: Chalk }) {
  const [block] = blocks;
  if (!block) return null;
  if ("heading" in block) return <h2>{block.heading}</h2>;
  if ("text" in block)
    return (
      <p className={styles["text"]}>
        <Words>{block.text}</Words>
      </p>
    );
  if ("note" in block) return <p className={styles["small"]}>{block.note}</p>;
  if ("drawing" in block) return <Drawing drawing={block.drawing} />;
  if ("table" in block) return <Table table={block.table} chalk={chalk} />;
  if ("steps" in block)
    return (
      <ol>
        {block.steps.map(({ text }) => (
          <li key={text}>
            <Words>{text}</Words>
          </li>
        ))}
      </ol>
    );
  const sign = "caution" in block ? "⚠ " : "";
  return (
    <ul>
      {blocks.map((one, index) => (
        <li key={index}>
          {sign}
          <Words>{"caution" in one ? one.caution : "line" in one ? one.line : ""}</Words>
        </li>
      ))}
    </ul>
  );
}

/** Figures in rows, to be ticked as they are chalked. A figure opens its sum. */
function Table({ table, chalk }: { table: CardTable; chalk: Chalk }) {
  const { columns, rows } = table;
  const [named, ...figures] = columns;
  const done = rows.filter(chalk.isChalked).length;
  return (
    <>
      <table>
        <thead>
          <tr>
            <th scope="col" className="no-print">
              <span className="unseen">Chalked</span>
            </th>
            <th scope="col">{named?.heading}</th>
            {figures.map((column) => (
              <th key={column.heading} scope="col">
                {column.heading}
              </th>
            ))}
            <th scope="col">
              <span className="unseen">Place</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const [name] = row.cells;
            return (
              <tr key={row.at.join(" ")} className={clsx(chalk.isChalked(row) && styles["ticked"])}>
                <td className="no-print">
                  <Checkbox
                    aria-label={`Chalked at ${name?.figure?.text ?? name?.text ?? ""}`}
                    checked={chalk.isChalked(row)}
                    onChange={(event) => {
                      chalk.tick(row, event.target.checked);
                    }}
                  />
                </td>
                {row.cells.map((cell, index) => (
                  <td
                    key={index}
                    className={clsx(styles[columns[index]?.emphasis ?? "sum"], "figure")}
                    data-column={index}
                  >
                    {cell.sum && cell.figure ? (
                      <Popover trigger={["hover", "focus"]} content={<Words>{cell.sum}</Words>}>
                        <button
                          type="button"
                          className={styles["explained"]}
                          aria-label={`${cell.figure.text}: ${cell.sum}`}
                        >
                          <Words>{cell.text}</Words>
                        </button>
                      </Popover>
                    ) : (
                      <Words>{cell.text}</Words>
                    )}
                  </td>
                ))}
                <td className={styles["note"]}>{row.note}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {rows.length > 0 && (
        <p className={clsx("no-print", styles["done"])} role="status">
          {done} of {rows.length} chalked
        </p>
      )}
    </>
  );
}

/** Old line dashed, new line solid, cut line in long dashes, the marks as dots. */
function Drawing({ drawing }: { drawing: CardDrawing }) {
  const { width, height, of } = drawing;
  return (
    <svg
      className={styles["drawing"]}
      viewBox={`0 0 ${width} ${height + 18}`}
      role="img"
      aria-label={`The new line${of ? `, ${of}` : ""}`}
    >
      <path className={styles["old"]} d={drawing.old} />
      {drawing.cut && <path className={styles["cut"]} d={drawing.cut} />}
      <path className={styles["new"]} d={drawing.new} />
      {drawing.dots.map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r={3} />
      ))}
      <text x={0} y={height + 13}>
        {drawing.from}
      </text>
      {of && (
        <text x={width / 2} y={height + 13} textAnchor="middle">
          {of}
        </text>
      )}
      <text x={width} y={height + 13} textAnchor="end">
        {drawing.to}
      </text>
    </svg>
  );
}

const FILES = [
  { format: "pdf", words: "PDF" },
  { format: "text", words: "Text" },
  { format: "csv", words: "CSV" },
] as const;

const TRUE_SIZE = [
  { format: "true_size_pdf", words: "PDF" },
  { format: "true_size_svg", words: "SVG" },
  { format: "true_size_dxf", words: "DXF" },
] as const;

/** The card as a file, or its lines at true size; the server writes it. */
function Files({
  files,
  label,
  href,
}: {
  files: readonly { format: string; words: string }[];
  label: string;
  href: (format: string) => string;
}) {
  return (
    <Space.Compact aria-label={label} role="group">
      {files.map(({ format, words }) => (
        <Button key={format} icon={<DownloadOutlined />} href={href(format)} download>
          {words}
        </Button>
      ))}
    </Space.Compact>
  );
}
