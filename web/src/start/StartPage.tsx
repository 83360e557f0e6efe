import { Button } from "antd";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, problemOf } from "../api/client";
import "./start.css";

export default function StartPage() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const open = useMutation({
    mutationFn: () => answer(api.POST("/api/v1/session")),
    onSuccess: async () => {
      await queries.invalidateQueries();
      await navigate("/rail");
    },
  });
  return (
    <main className="start">
      <h1>From pins to a chalk line you can trust</h1>
      <p>
        Pin a garment on the body, type in what the tape says. Vemble makes both sides agree, draws the new
        stitching line, checks what the garment will measure, and gives you a card to chalk from.
      </p>
      <Button
        type="primary"
        size="large"
        loading={open.isPending}
        onClick={() => {
          open.mutate();
        }}
      >
        Open the example
      </Button>
      <p className="quiet">
        A string quartet’s wardrobe, all of it made up. Change what you like: it can be put back at any time.
      </p>
      {open.isError && (
        <p role="alert" className="start-trouble">
          {problemOf(open.error).title}. {problemOf(open.error).detail}
        </p>
      )}
    </main>
  );
}
