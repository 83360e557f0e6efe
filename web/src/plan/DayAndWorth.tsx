import { useQuery } from "@tanstack/react-query";
import { Button, Collapse, Select } from "antd";
import { clsx } from "clsx";
import { Link } from "react-router";
import { type GarmentAhead, type GarmentState, type WayOutLine, type Wishes } from "../api/client";
import * as queries from "../api/queries";
import { useWords } from "../document/useWords";
import styles from "./plan.module.css";
import type { OfWishes } from "./useWishes";

/** By when, and what is wanted most when time runs out. */
export function DayAndWorth({ own, wishes, onSet }: OfWishes & { state: GarmentState; own: GarmentAhead }) {
  const words = useWords();
  const room = useQuery(queries.workroom);
  const events = room.data?.workroom.events ?? [];
  const value = wishes.event ?? (wishes.by ? "day" : "none");
  const changes = [...new Set(own.tasks.flatMap((task) => (task.change ? [task.change] : [])))];
  const dropped = (wishes.worth ?? []).filter((w) => w.worth === "not_this_time").map((w) => w.change);
  const named = [...new Set([...changes, ...dropped])];
  const titleOf = (change: string) =>
    own.tasks
      .find((task) => task.change === change && task.step === "stitch")
      ?.title.replace(/^Stitch the /, "")
      .replace(/, (left|right) .*$/, "") ?? change.split(".").slice(1).join(" ").replaceAll("_", " ");
  const schools = wishes.schools ?? {};
  const school = (part: Partial<NonNullable<Wishes["schools"]>>) => {
    onSet({ schools: { ...schools, ...part } });
  };
  return (
    <>
      <div className={styles["fields"]}>
        <label>
          Ready for{" "}
          <Select
            aria-label="Ready for"
            value={value}
            popupMatchSelectWidth={false}
            options={[
              { value: "none", label: "no day" },
              ...events.map((event) => ({ value: event.id, label: `${event.name}, ${event.date}` })),
              { value: "day", label: "a day of its own" },
            ]}
            onChange={(chosen) => {
              const day = wishes.by ?? new Date().toISOString().slice(0, 10);
              const isEvent = chosen !== "none" && chosen !== "day";
              onSet({ event: isEvent ? chosen : null, by: chosen === "day" ? day : null });
            }}
          />
        </label>
        {wishes.by && !wishes.event && (
          <input
            type="date"
            aria-label="The day"
            className={styles["date"]}
            value={wishes.by}
            onChange={(change) => {
              if (change.target.value) onSet({ by: change.target.value });
            }}
          />
        )}
        <p className="quiet">
          {own.done[0]} of {own.done[1]} tasks done
          {own.minutes_words && `, ${own.minutes_words} left`}
          {own.money?.saved && ` · saved so far: ${own.money.saved}`}
        </p>
      </div>
      {named.length > 0 && (
        <Collapse
          ghost
          size="small"
          items={[
            {
              key: "worth",
              label: "What is wanted most, and how it is sewn",
              children: (
                <div className={styles["fields"]}>
                  {named.map((change) => (
                    <label key={change}>
                      {titleOf(change)}{" "}
                      <Select
                        aria-label={`What the ${titleOf(change)} is worth`}
                        popupMatchSelectWidth={false}
                        value={wishes.worth?.find((w) => w.change === change)?.worth ?? "wanted"}
                        options={words.options("worth")}
                        onChange={(worth) => {
                          const others = (wishes.worth ?? []).filter((w) => w.change !== change);
                          onSet({ worth: [...others, { change, worth }] });
                        }}
                      />
                    </label>
                  ))}
                  {(
                    [
                      ["cutting", "cutting", "Cloth outside a seam"],
                      ["allowance", "allowance", "Allowances"],
                      ["dart_end", "dart_end", "Points of darts"],
                      ["sleeve", "sleeve", "Sleeves"],
                      ["hem", "sewn_by", "Hems"],
                    ] as const
                  ).map(([field, choice, label]) => (
                    <label key={field}>
                      {label}{" "}
                      <Select
                        aria-label={label}
                        allowClear
                        placeholder="as usual"
                        popupMatchSelectWidth={false}
                        value={schools[field] ?? null}
                        options={words.options(choice)}
                        onChange={(chosen) => {
                          school({ [field]: chosen });
                        }}
                      />
                    </label>
                  ))}
                </div>
              ),
            },
          ]}
        />
      )}
    </>
  );
}

/** What can be done where something comes too late: each was planned. */
export function WaysOut({
  ways,
  here,
  onTry,
}: {
  ways: WayOutLine[];
  here: string;
  onTry: (way: WayOutLine) => void;
}) {
  return (
    <section className={clsx("sheet", styles["ways"])} aria-label="Ways out">
      <h2>Ways out</h2>
      <ol>
        {ways.map((way) => (
          <li key={way.title}>
            <strong>{way.title}.</strong> {way.says} <span className="quiet">{way.costs}</span>{" "}
            {way.wishes && way.garment === here && (
              <Button
                size="small"
                onClick={() => {
                  onTry(way);
                }}
              >
                What if?
              </Button>
            )}
            {way.wishes && way.garment !== here && (
              <Link to={`/garments/${way.garment ?? ""}/plan`}>to its plan</Link>
            )}
            {way.evening && <Link to="/evenings">to the evenings</Link>}
          </li>
        ))}
      </ol>
    </section>
  );
}
