import { EllipsisOutlined, PlusOutlined } from "@ant-design/icons";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Checkbox, Dropdown, Input, Popconfirm, Select, Skeleton } from "antd";
import { clsx } from "clsx";
import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { v7 as newId } from "uuid";
import { answer, api, problemOf, type GarmentAhead, type OnTheRail } from "../api/client";
import * as queries from "../api/queries";
import { HangingView } from "../drawing/PictureView";
import { newestFacts } from "../document/changes";
import { forgetDrafts } from "../document/drafts";
import { newestOf } from "../document/useGarment";
import { useNews } from "../document/useNews";
import { useSettings } from "../settings";
import { Trouble } from "../shell/Trouble";
import styles from "./rail.module.css";

/** All garments, hanging in order of what presses most. */
export default function RailPage() {
  const { tape } = useSettings();
  const rail = useQuery(queries.rail(tape));
  const who = useQuery(queries.who);
  const ahead = useQuery(queries.ahead(tape));
  useNews();
  const [search, setSearch] = useState("");
  const [wearer, setWearer] = useState<string | null>(null);
  const [archived, setArchived] = useState(false);
  const all = rail.data;
  const shown = useMemo(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return (all ?? []).filter((g) => {
      const said = `${g.name} ${g.wearer} ${g.cloth} ${g.kind} ${g.toile ? "toile" : ""}`.toLowerCase();
      return (
        g.archived === archived &&
        (wearer === null || g.wearer_id === wearer) &&
        words.every((word) => said.includes(word))
      );
    });
  }, [all, search, wearer, archived]);
  if (rail.isPending) {
    return (
      <main className={styles["page"]}>
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    );
  }
  if (rail.isError) return <Trouble problem={problemOf(rail.error)} retry={() => void rail.refetch()} />;
  const first = rail.data.find((g) => !g.archived);
  const piece = ahead.data?.evenings.flatMap((evening) => evening.pieces)[0];
  const wearers = new Map(rail.data.map((g) => [g.wearer_id, g.wearer]));
  const away = rail.data.filter((g) => g.archived).length;
  return (
    <main className={styles["page"]}>
      <div className={styles["head"]}>
        <p className={styles["what-now"]}>
          {first ? (
            <>
              What now? <Link to={`/garments/${first.id}`}>{first.next_step}</Link>, {first.wearer}’s{" "}
              {first.name.toLowerCase()}.
              {piece && ahead.data && (
                <span className={styles["planned"]}>
                  <Link to={`/garments/${piece.garment}/sew`}>{ahead.data.what_now}</Link>
                </span>
              )}
            </>
          ) : (
            <>
              Nothing hangs here yet. <Link to="/garments/new">Hang up the first garment.</Link>
            </>
          )}
        </p>
        <div className={styles["tools"]}>
          {who.data?.example && <Reset />}
          <Link to="/garments/new">
            <Button type="primary" icon={<PlusOutlined />}>
              New garment
            </Button>
          </Link>
        </div>
      </div>
      {rail.data.length > 1 && (
        <div className={styles["filter"]}>
          <Input.Search
            aria-label="Search the rail"
            placeholder="Search the rail"
            allowClear
            value={search}
            onChange={(event) => {
              setSearch(event.target.value);
            }}
          />
          <Select<string | null>
            aria-label="Whose garments"
            value={wearer}
            popupMatchSelectWidth={false}
            options={[
              { value: null, label: "everybody’s" },
              ...[...wearers].map(([value, label]) => ({ value, label })),
            ]}
            onChange={setWearer}
          />
          <Checkbox
            checked={archived}
            onChange={(event) => {
              setArchived(event.target.checked);
            }}
          >
            put away ({away})
          </Checkbox>
        </div>
      )}
      <ul className={styles["rail"]}>
        {shown.map((garment) => (
          <Hung
            key={garment.id}
            garment={garment}
            ahead={ahead.data?.garments.find((g) => g.id === garment.id) ?? null}
          />
        ))}
      </ul>
      {shown.length === 0 && rail.data.length > 0 && (
        <p className={clsx("quiet", styles["none"])}>
          {archived ? "Nothing is put away" : "Nothing on the rail"}{" "}
          {search || wearer ? "matches that." : "here."}
        </p>
      )}
    </main>
  );
}

/** Room the hanger takes above the garment, in mm of the drawing. */
const HANGER = 120;
/** Every garment hangs at the same scale, so that a child's looks like one: this many mm are the height of a place. */
const PLACE = { width: 1080, height: 1500 };

function Hung({ garment, ahead }: { garment: OnTheRail; ahead: GarmentAhead | null }) {
  const { hanging } = garment;
  const [left = 0, top = 0, width = 0] = hanging?.view ?? [];
  const middle = left + width / 2;
  const half = Math.min(width / 2, hanging?.from_shoulders ? 170 : width / 2);
  const cautions = [
    garment.stops > 0 && `${garment.stops} to settle`,
    garment.cautions > 0 && `${garment.cautions} ${garment.cautions === 1 ? "caution" : "cautions"}`,
  ].filter(Boolean);
  const hook = top - HANGER;
  return (
    <li className={styles["hung"]}>
      <Link
        to={garment.trouble ? `/garments/${garment.id}/look-over` : `/garments/${garment.id}`}
        aria-label={`${garment.name}, ${garment.wearer}: ${garment.next_step}`}
      >
        <svg
          viewBox={`${middle - PLACE.width / 2} ${hook} ${PLACE.width} ${PLACE.height}`}
          className={styles["hung-drawing"]}
          aria-hidden
        >
          <path
            className={styles["hanger"]}
            d={
              hanging?.from_shoulders
                ? `M${middle} ${hook} V${top - 6} M${middle} ${top - 6} L${middle - half} ${top + 60} M${middle} ${top - 6} L${middle + half} ${top + 60}`
                : `M${middle} ${hook} V${top - 70} M${middle} ${top - 70} L${middle - half - 10} ${top - 14} H${middle + half + 10} Z M${middle - half * 0.8} ${top - 14} V${top + 14} M${middle + half * 0.8} ${top - 14} V${top + 14}`
            }
          />
          {hanging && <HangingView hanging={hanging} />}
        </svg>
        <div className={styles["tag"]}>
          <h2>{garment.name}</h2>
          <p className="quiet">
            {garment.wearer} · {garment.cloth}
          </p>
          <p className={styles["tag-next"]}>
            {(garment.stops === 0 && ahead?.next?.title) || garment.next_step}
          </p>
          {ahead?.minutes_words && (
            <p className={clsx(["late", "over", "no_place"].includes(ahead.outlook) && styles["tag-late"])}>
              {ahead.minutes_words} left
              {ahead.days_left !== null &&
                ` · ${String(ahead.days_left)} ${ahead.days_left === 1 ? "day" : "days"} left`}
              {["late", "over", "no_place"].includes(ahead.outlook) && ` · ${ahead.outlook_words}`}
            </p>
          )}
          {garment.trouble && <p className={styles["tag-caution"]}>⚠ {garment.trouble}</p>}
          {cautions.length > 0 && <p className={styles["tag-caution"]}>⚠ {cautions.join(", ")}</p>}
        </div>
      </Link>
      <GarmentMenu garment={garment} />
    </li>
  );
}

/** Put away, copy, remove: what is done to a garment as a whole. */
function GarmentMenu({ garment }: { garment: OnTheRail }) {
  const { message, modal } = App.useApp();
  const navigate = useNavigate();
  const client = useQueryClient();
  const path = { garment: garment.id };
  const failed = (error: unknown) => void message.error(problemOf(error).detail);
  const read = () => answer(api.GET("/api/v1/garments/{garment}", { params: { path } }));
  const refresh = () => client.invalidateQueries(queries.everyRail);
  const putAway = async () => {
    const state = await read();
    await answer(
      api.PUT("/api/v1/garments/{garment}", {
        params: { path },
        body: {
          version: state.version,
          wearer_id: state.wearer_id,
          archived: !garment.archived,
          state: newestOf(state),
          garment: newestFacts(state.document),
        },
      }),
    );
    await refresh();
  };
  const copy = async () => {
    const state = await read();
    const id = newId();
    const facts = newestFacts(state.document);
    const copied = { ...facts, name: `${facts.name}, copy` };
    await answer(
      api.PUT("/api/v1/garments/{garment}", {
        params: { path: { garment: id } },
        body: { version: 0, wearer_id: state.wearer_id, archived: false, state: newId(), garment: copied },
      }),
    );
    await refresh();
    await navigate(`/garments/${id}/look-over`);
  };
  const remove = () => {
    void modal.confirm({
      title: `Remove “${garment.name}”?`,
      content: "Its try-ons and photos go with it. To keep them, put it away instead.",
      okText: "Remove it",
      okButtonProps: { danger: true },
      cancelText: "Keep it",
      onOk: async () => {
        await answer(api.DELETE("/api/v1/garments/{garment}", { params: { path } })).catch(failed);
        await refresh();
      },
    });
  };
  return (
    <Dropdown
      trigger={["click"]}
      menu={{
        items: [
          {
            key: "away",
            label: garment.archived ? "Hang it up again" : "Put it away",
            onClick: () => void putAway().catch(failed),
          },
          { key: "copy", label: "Copy its look-over", onClick: () => void copy().catch(failed) },
          {
            key: "save",
            label: (
              <a href={`/api/v1/garments/${garment.id}/archive`} download>
                Save it as a file
              </a>
            ),
          },
          { key: "remove", label: "Remove", danger: true, onClick: remove },
        ],
      }}
    >
      <Button
        className={clsx(styles["hung-menu"])}
        type="text"
        icon={<EllipsisOutlined />}
        aria-label={`More for ${garment.name}`}
      />
    </Dropdown>
  );
}

function Reset() {
  const client = useQueryClient();
  const { message } = App.useApp();
  const reset = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/example/reset")),
    onSuccess: async () => {
      forgetDrafts();
      await client.resetQueries();
      void message.success("The example is as it was at first.");
    },
    onError: (error) => void message.error(problemOf(error).detail),
  });
  return (
    <Popconfirm
      title="Put the example back?"
      description="Everything you changed in it is forgotten."
      okText="Put it back"
      cancelText="Keep my changes"
      onConfirm={() => {
        reset.mutate();
      }}
    >
      <Button type="text" loading={reset.isPending}>
        Put the example back
      </Button>
    </Popconfirm>
  );
}
