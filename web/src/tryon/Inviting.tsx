import { useQuery, useQueryClient } from "@tanstack/react-query";
import { App, Button, Modal, QRCode, Segmented } from "antd";
import { useState } from "react";
import { answer, api, problemOf, type Invited } from "../api/client";
import type { OneTryOn } from "../document/useTryOn";
import styles from "./tryon.module.css";

type For = "helper" | "screen";

interface Props {
  one: OneTryOn;
  open: boolean;
  onClose: () => void;
}

/** Invites a helper or a second screen: a code to say, a picture of it to point a phone at. */
export function Inviting({ one, open, onClose }: Props) {
  const { message } = App.useApp();
  const queries = useQueryClient();
  const [whom, setWhom] = useState<For>("helper");
  const [invited, setInvited] = useState<Invited | null>(null);
  const key = ["invitations", one.id];
  const params = { path: { garment: one.garment, try_on: one.id } };
  const standing = useQuery({
    queryKey: key,
    queryFn: () =>
      answer(api.GET("/api/v1/try-ons/{try_on}/invitations", { params: { path: { try_on: one.id } } })),
    enabled: open,
  });
  const refresh = () => queries.invalidateQueries({ queryKey: key });
  const invite = async () => {
    try {
      const body = { may_add: whom === "helper" };
      const path = "/api/v1/garments/{garment}/try-ons/{try_on}/invitations";
      setInvited(await answer(api.POST(path, { params, body })));
      await refresh();
    } catch (error) {
      const problem = problemOf(error);
      void message.error(
        problem.status === 404 ? "Enter something first: an empty try-on is not stored yet." : problem.detail,
      );
    }
  };
  const end = async (id: string) => {
    await answer(api.DELETE("/api/v1/invitations/{invitation}", { params: { path: { invitation: id } } }));
    if (invited?.id === id) setInvited(null);
    await refresh();
  };
  return (
    <Modal
      title="Invite to this try-on"
      open={open}
      footer={null}
      onCancel={onClose}
      afterClose={() => {
        setInvited(null);
      }}
    >
      <Segmented<For>
        block
        aria-label="Whom"
        options={[
          { value: "helper", label: "a helper, who enters" },
          { value: "screen", label: "a second screen, to look on" },
        ]}
        value={whom}
        onChange={(next) => {
          setWhom(next);
          setInvited(null);
        }}
      />
      <p className="quiet">
        No account is needed. It opens this try-on and nothing else, without the wearer’s measurements, and
        ends by itself after three hours or when you close the try-on.
      </p>
      {invited ? (
        <div className={styles["invited"]}>
          <QRCode value={`${location.origin}/join/${invited.code}`} size={180} bordered={false} />
          <div>
            <p className={styles["invited-code"]} data-code={invited.code}>
              {invited.code}
            </p>
            <p>
              Point a phone at the picture, or type the code at <strong>{location.host}/join</strong>. It is
              shown this once.
            </p>
          </div>
        </div>
      ) : (
        <Button type="primary" size="large" onClick={() => void invite()}>
          Make a code
        </Button>
      )}
      {(standing.data ?? []).length > 0 && (
        <>
          <h3>Open now</h3>
          <ul className={styles["invitations"]}>
            {(standing.data ?? []).map((i) => (
              <li key={i.id}>
                {i.may_add ? "a helper" : "a second screen"}
                <Button size="small" onClick={() => void end(i.id)}>
                  Take it back
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </Modal>
  );
}
