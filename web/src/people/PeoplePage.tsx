import { PlusOutlined } from "@ant-design/icons";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Input, Skeleton } from "antd";
import { clsx } from "clsx";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { v7 as newId } from "uuid";
import { answer, api, problemOf } from "../api/client";
import * as queries from "../api/queries";
import { useNews } from "../document/useNews";
import { useWords } from "../document/useWords";
import { Trouble } from "../shell/Trouble";
import styles from "./people.module.css";

/** Everybody whose garments hang here. */
export default function PeoplePage() {
  const navigate = useNavigate();
  const words = useWords();
  const [name, setName] = useState("");
  const wearers = useQuery(queries.wearers);
  useNews();
  const add = useMutation({
    mutationFn: async () => {
      const id = newId();
      const body = { version: 0, wearer: { name: name.trim() } };
      await answer(api.PUT("/api/v1/wearers/{wearer}", { params: { path: { wearer: id } }, body }));
      return id;
    },
    onSuccess: async (id) => {
      await navigate(`/people/${id}`);
    },
  });
  if (wearers.isError)
    return <Trouble problem={problemOf(wearers.error)} retry={() => void wearers.refetch()} />;
  return (
    <main className={styles["people-page"]}>
      <h1>People</h1>
      {wearers.isPending && <Skeleton active />}
      <ul className={styles["people"]}>
        {(wearers.data ?? []).map(({ id, wearer, garments }) => (
          <li key={id}>
            <Link to={`/people/${id}`} className={clsx("sheet", styles["person-card"])}>
              <strong>{wearer.name}</strong>
              <span className="quiet">
                {new Set((wearer.measurements ?? []).map((m) => m.what)).size} measurements ·{" "}
                {garments === 1 ? "1 garment" : `${garments} garments`}
              </span>
              {(wearer.posture ?? []).length > 0 && (
                <span className="quiet">
                  {(wearer.posture ?? []).map((p) => words.of("posture", p)).join(", ")}
                </span>
              )}
            </Link>
          </li>
        ))}
      </ul>
      {wearers.data?.length === 0 && (
        <p className="quiet">Nobody yet. Add yourself first: a name is enough to begin.</p>
      )}
      <form
        className={styles["add-person"]}
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) add.mutate();
        }}
      >
        <Input
          aria-label="Name of somebody new"
          placeholder="somebody new"
          maxLength={120}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
          }}
        />
        <Button
          type="primary"
          htmlType="submit"
          icon={<PlusOutlined />}
          disabled={!name.trim()}
          loading={add.isPending}
        >
          Add
        </Button>
      </form>
      {add.isError && (
        <p className="field-trouble" role="alert">
          {problemOf(add.error).title}. {problemOf(add.error).detail}
        </p>
      )}
    </main>
  );
}
