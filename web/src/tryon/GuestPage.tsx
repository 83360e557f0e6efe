import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Input, Skeleton } from "antd";
import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { answer, api, problemOf, type AskedNow, type GuestState, type TryOn } from "../api/client";
import { draftOf, type Draft } from "../document/drafts";
import { FittingMode } from "./FittingMode";
import { stateOf } from "../document/changes";
import { today } from "../document/today";
import { askedIn, LargeView } from "./LargeView";
import { draftsOfGarment, useTryOn } from "../document/useTryOn";
import styles from "./fitting.module.css";

const GUEST = ["guest"];

interface Joined {
  state: GuestState;
  draft: Draft<TryOn> | null;
}

const withDraft = async (state: GuestState): Promise<Joined> => ({
  state,
  draft: await draftOf<TryOn>(draftsOfGarment(state.garment) + state.try_on),
});

/** Somebody without an account who was invited to one try-on: joins by a code, then helps or looks on. */
export default function GuestPage() {
  const { code } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const guest = useQuery({
    queryKey: GUEST,
    queryFn: () => answer(api.GET("/api/v1/guest")).then(withDraft),
    enabled: !code,
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
  });
  const join = useMutation({
    mutationFn: (typed: string) =>
      answer(api.POST("/api/v1/guest", { body: { code: typed } })).then(withDraft),
    onSuccess: (joined) => {
      queries.setQueryData(GUEST, joined);
      // The code is not left in the address.
      void navigate("/join", { replace: true });
    },
  });
  const { mutate } = join;
  useEffect(() => {
    if (code) mutate(code);
  }, [code, mutate]);
  if (guest.data && !code) return <Guest key={guest.dataUpdatedAt} joined={guest.data} />;
  if (join.isPending || (guest.isPending && !code)) {
    return (
      <main className={styles["fitting"]}>
        <Skeleton active paragraph={{ rows: 6 }} />
      </main>
    );
  }
  const wrong = join.error ?? (code ? null : guest.error);
  const problem = wrong && problemOf(wrong);
  return <JoinForm problem={problem?.type === "over" && !join.error ? null : problem} onJoin={mutate} />;
}

interface JoinFormProps {
  problem: ReturnType<typeof problemOf> | null;
  onJoin: (code: string) => void;
}

function JoinForm({ problem, onJoin }: JoinFormProps) {
  const [code, setCode] = useState("");
  return (
    <main className={styles["join"]}>
      <h1>Help with a try-on</h1>
      <p>Type the eight signs that you were told. You need no account.</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (code.trim()) onJoin(code);
        }}
      >
        <Input
          aria-label="Code"
          size="large"
          autoComplete="off"
          autoCapitalize="characters"
          placeholder="ABCD-2345"
          maxLength={12}
          value={code}
          onChange={(event) => {
            setCode(event.target.value);
          }}
        />
        <Button type="primary" size="large" htmlType="submit" block>
          Join
        </Button>
      </form>
      {problem && <Alert type="warning" showIcon title={problem.title} description={problem.detail} />}
    </main>
  );
}

function Guest({ joined }: { joined: Joined }) {
  const { state, draft } = joined;
  const queries = useQueryClient();
  const [asked, setAsked] = useState<AskedNow | null>(null);
  const [isDone, setDone] = useState(false);
  const [tryOn] = state.document.try_ons ?? [];
  const kept = useTryOn(
    {
      id: state.try_on,
      garment: state.garment,
      initial: tryOn ?? { state: stateOf(state.document)?.id ?? "", date: today() },
      version: state.version,
      draft: state.may_add ? draft : null,
    },
    {
      asGuest: true,
      atOnce: true,
      onEvent: (event) => {
        const now = askedIn(event, state.try_on);
        if (now) setAsked(now);
      },
    },
  );
  const { document: garment } = state;
  if (kept.problem?.type === "over") {
    return (
      <main className={styles["join"]}>
        <h1>This try-on is over</h1>
        <p>Thank you for holding the tape. What you entered before it was closed is stored.</p>
        <Button onClick={() => void queries.resetQueries({ queryKey: GUEST })}>Join another</Button>
      </main>
    );
  }
  if (!state.may_add)
    return <LargeView id={state.garment} garment={garment} tryOn={kept.value} asked={asked} />;
  if (isDone) {
    return (
      <main className={styles["join"]}>
        <h1>Thank you</h1>
        <p>
          {kept.isStored
            ? "Everything you entered is stored."
            : "What you entered is kept here and sent as soon as there is a network."}
        </p>
        <Button
          type="primary"
          onClick={() => {
            setDone(false);
          }}
        >
          Go on with it
        </Button>
      </main>
    );
  }
  return (
    <FittingMode
      id={state.garment}
      garment={garment}
      before={undefined}
      kept={kept}
      fromTape={null}
      onAsked={(asked) => {
        api.POST("/api/v1/guest/asked", { body: asked }).catch(() => undefined);
      }}
      onClose={() => {
        setDone(true);
      }}
    />
  );
}
