import { DeleteOutlined, PlusOutlined } from "@ant-design/icons";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Input, Modal, Popconfirm, Progress, Segmented, Select } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { v7 as newId } from "uuid";
import { answer, api, problemOf, type PhotoState, type Problem } from "../api/client";
import lookover from "../garment/lookover.module.css";
import { ChooseFile } from "../shell/ChooseFile";
import styles from "./photos.module.css";

type Moment = PhotoState["moment"];

const MOMENTS: { value: Moment; label: string }[] = [
  { value: "before", label: "before" },
  { value: "after", label: "after" },
  { value: "detail", label: "detail" },
];

/** A photo on its way: how far it is, and how to stop it. */
interface Sending {
  id: string;
  name: string;
  percent: number;
  stop: () => void;
}

/** Photos of a garment, or of one of its try-ons: before and after side by side, and details. */
export function Photos({ garment, tryOn }: { garment: string; tryOn?: string }) {
  const { message } = App.useApp();
  const queries = useQueryClient();
  const [moment, setMoment] = useState<Moment>("before");
  const [sending, setSending] = useState<Sending[]>([]);
  const [large, setLarge] = useState<PhotoState | null>(null);
  const key = ["photos", garment];
  const photos = useQuery({
    queryKey: key,
    queryFn: () => answer(api.GET("/api/v1/garments/{garment}/photos", { params: { path: { garment } } })),
  });
  const refresh = () => queries.invalidateQueries({ queryKey: key });
  const send = (file: File) => {
    const id = newId();
    const request = new XMLHttpRequest();
    const forget = () => {
      setSending((all) => all.filter((s) => s.id !== id));
    };
    request.upload.onprogress = (event) => {
      const percent = Math.round((100 * event.loaded) / event.total);
      setSending((all) => all.map((s) => (s.id === id ? { ...s, percent } : s)));
    };
    request.onload = () => {
      forget();
      if (request.status === 201) void refresh();
      else {
        const problem = JSON.parse(request.responseText || "{}") as Partial<Problem>;
        const wrong = problem.errors?.[0];
        void message.error(
          wrong
            ? `${file.name}: ${wrong.found}. Expected ${wrong.expected}.`
            : `${file.name}: ${problem.detail ?? "it did not arrive"}`,
          8,
        );
      }
    };
    request.onerror = () => {
      forget();
      // The answer is lost, not surely the photo.
      void refresh();
      void message.error(`${file.name}: not known whether it arrived. Look before you send it again.`, 8);
    };
    request.onabort = forget;
    request.open(
      "PUT",
      `/api/v1/garments/${garment}/photos/${id}?moment=${moment}${tryOn ? `&try_on=${tryOn}` : ""}`,
    );
    request.setRequestHeader("Content-Type", file.type.startsWith("image/") ? file.type : "image/unknown");
    setSending((all) => [
      ...all,
      {
        id,
        name: file.name,
        percent: 0,
        stop: () => {
          request.abort();
        },
      },
    ]);
    request.send(file);
  };
  const all = (photos.data ?? []).filter((p) => !tryOn || p.try_on === tryOn);
  const befores = all.filter((p) => p.moment === "before");
  const paired = new Set(all.filter((p) => p.pair).map((p) => p.pair));
  const pairs = all.filter((p) => p.moment === "after" && p.pair);
  const others = all.filter((p) => !paired.has(p.id) && !(p.moment === "after" && p.pair));
  const change = (photo: PhotoState, to: Partial<PhotoState>) => {
    const { moment: next, pair, caption } = { ...photo, ...to };
    answer(
      api.PUT("/api/v1/photos/{photo}", {
        params: { path: { photo: photo.id } },
        body: { moment: next, pair: next === "after" ? (pair ?? null) : null, caption },
      }),
    ).then(refresh, (error: unknown) => void message.error(problemOf(error).detail));
  };
  const remove = (photo: PhotoState) => {
    answer(api.DELETE("/api/v1/photos/{photo}", { params: { path: { photo: photo.id } } })).then(
      refresh,
      (error: unknown) => void message.error(problemOf(error).detail),
    );
  };
  const one = (photo: PhotoState) => (
    <PhotoCard
      key={photo.id}
      photo={photo}
      befores={befores}
      onChange={change}
      onRemove={remove}
      onLarge={setLarge}
    />
  );
  return (
    <section className={clsx("sheet", lookover["place"])} aria-label="Photos">
      <h2>Photos</h2>
      <p className="quiet">
        Where a photo was taken is removed from it. JPEG, PNG or WebP, up to 15 MB each.
      </p>
      <div className={styles["tools"]}>
        <Segmented<Moment> aria-label="Moment" options={MOMENTS} value={moment} onChange={setMoment} />
        <ChooseFile
          icon={<PlusOutlined />}
          label="Choose photos"
          accept="image/jpeg,image/png,image/webp"
          multiple
          onFile={send}
        >
          Add photos
        </ChooseFile>
      </div>
      {sending.map((s) => (
        <div key={s.id} className={styles["sending"]}>
          <span>{s.name}</span>
          <Progress percent={s.percent} size="small" />
          <Button size="small" onClick={s.stop}>
            Stop
          </Button>
        </div>
      ))}
      {all.length === 0 && sending.length === 0 && (
        <p className="quiet">None yet: one of before is worth most now, while it still is.</p>
      )}
      {pairs.map((after) => {
        const before = all.find((p) => p.id === after.pair);
        return (
          <div key={after.id} className={styles["pair"]}>
            {before && one(before)}
            {one(after)}
          </div>
        );
      })}
      <div className={styles["grid"]}>{others.map(one)}</div>
      <Modal
        open={large !== null}
        footer={null}
        width="min(96vw, 1100px)"
        title={large?.caption || large?.moment}
        onCancel={() => {
          setLarge(null);
        }}
      >
        {large && <img className={styles["large"]} src={`/api/v1/photos/${large.id}`} alt={altOf(large)} />}
      </Modal>
    </section>
  );
}

const altOf = (photo: PhotoState) => photo.caption || `The garment, ${photo.moment}`;

interface CardProps {
  photo: PhotoState;
  befores: PhotoState[];
  onChange: (photo: PhotoState, to: Partial<PhotoState>) => void;
  onRemove: (photo: PhotoState) => void;
  onLarge: (photo: PhotoState) => void;
}

function PhotoCard({ photo, befores, onChange, onRemove, onLarge }: CardProps) {
  return (
    <figure className={styles["photo"]}>
      <button
        type="button"
        aria-label={`${altOf(photo)}: larger`}
        onClick={() => {
          onLarge(photo);
        }}
      >
        <img src={`/api/v1/photos/${photo.id}/thumbnail`} alt={altOf(photo)} loading="lazy" />
      </button>
      <figcaption>
        <Input
          key={photo.caption}
          size="small"
          aria-label="Caption"
          placeholder="what is to be seen"
          maxLength={500}
          defaultValue={photo.caption}
          onBlur={(event) => {
            if (event.target.value !== photo.caption) onChange(photo, { caption: event.target.value });
          }}
        />
        <div className={styles["tools"]}>
          <Select<Moment>
            size="small"
            aria-label="Moment of this photo"
            options={MOMENTS}
            value={photo.moment}
            onChange={(moment) => {
              onChange(photo, { moment });
            }}
          />
          {photo.moment === "after" && befores.length > 0 && (
            <Select<string | null>
              size="small"
              aria-label="Beside which photo of before"
              value={photo.pair ?? null}
              popupMatchSelectWidth={false}
              options={[
                { value: null, label: "by itself" },
                ...befores.map((b, n) => ({ value: b.id, label: b.caption || `beside before ${n + 1}` })),
              ]}
              onChange={(pair) => {
                onChange(photo, { pair });
              }}
            />
          )}
          <Popconfirm
            title="Remove this photo for good?"
            okText="Remove it"
            cancelText="Keep it"
            onConfirm={() => {
              onRemove(photo);
            }}
          >
            <Button type="text" size="small" icon={<DeleteOutlined />} aria-label="Remove this photo" />
          </Popconfirm>
        </div>
      </figcaption>
    </figure>
  );
}
