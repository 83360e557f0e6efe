import { DownloadOutlined, UploadOutlined } from "@ant-design/icons";
import { useQueryClient } from "@tanstack/react-query";
import { App, Button, Progress } from "antd";
import { useState } from "react";
import { fromHere, type BroughtIn, type Problem } from "../api/client";
import { RequestId } from "../shell/Wrong";
import { ChooseFile } from "../shell/ChooseFile";
import styles from "./account.module.css";

/** Everything in the account as a file, and back in again. */
export function Keeping() {
  const { message } = App.useApp();
  const queries = useQueryClient();
  const [percent, setPercent] = useState<number | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = (file: File) => {
    const request = new XMLHttpRequest();
    setProblem(null);
    setPercent(0);
    request.upload.onprogress = (event) => {
      setPercent(Math.round((100 * event.loaded) / event.total));
    };
    request.onloadend = () => {
      setPercent(null);
      if (request.status === 200) {
        const { garments, wearers, photos } = JSON.parse(request.responseText) as BroughtIn;
        void queries.invalidateQueries();
        void message.success(`Brought in: ${garments} garments, ${wearers} wearers, ${photos} photos.`, 8);
        return;
      }
      setProblem(
        request.status
          ? (JSON.parse(request.responseText) as Problem)
          : {
              type: "unreachable",
              title: "It did not arrive",
              detail: "Nothing was stored; send it again.",
              status: 0,
            },
      );
    };
    request.open("POST", "/api/v1/archives");
    request.setRequestHeader("Content-Type", "application/zip");
    for (const [name, value] of Object.entries(fromHere)) request.setRequestHeader(name, value);
    request.send(file);
  };
  const wrong = problem?.errors?.[0];
  return (
    <section className="sheet">
      <h2>Yours to keep</h2>
      <p>
        One file with every garment, its history, its wearer and its photos, in an open format. It can be
        brought in again here or into another Vemble: garments that are there already are not brought in
        twice.
      </p>
      <div className={styles["keeping"]}>
        <Button icon={<DownloadOutlined />} href="/api/v1/account/archive" download>
          Save everything
        </Button>
        <ChooseFile
          icon={<UploadOutlined />}
          disabled={percent !== null}
          label="A file to bring in"
          accept=".zip,application/zip"
          onFile={send}
        >
          Bring a file in
        </ChooseFile>
      </div>
      {percent !== null && (
        <div role="status">
          <Progress percent={percent} size="small" />
          {percent === 100 && <span className="quiet">It has arrived and is looked through.</span>}
        </div>
      )}
      {problem && (
        <p className="field-trouble" role="alert">
          {problem.title}.{" "}
          {wrong ? `${wrong.path}: ${wrong.found}. Expected ${wrong.expected}.` : problem.detail}
          <RequestId problem={problem} />
        </p>
      )}
    </section>
  );
}
