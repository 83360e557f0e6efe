import { MoonOutlined, QuestionOutlined, SunOutlined, UserOutlined } from "@ant-design/icons";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Dropdown, Modal, Segmented, Select, Tooltip } from "antd";
import { clsx } from "clsx";
import { useEffect, useState } from "react";
import { Link, NavLink, Outlet, useNavigate } from "react-router";
import { answer, api, type Tape } from "../api/client";
import * as queries from "../api/queries";
import { forgetDrafts } from "../document/drafts";
import { useSettings } from "../settings";
import styles from "./shell.module.css";

const MARKS: Record<"cm" | "in", { value: Tape; label: string }[]> = {
  cm: [
    { value: "cm", label: "to 1 mm" },
    { value: "cm_halves", label: "to 5 mm" },
  ],
  in: [
    { value: "in", label: "to ⅛" },
    { value: "in_sixteenths", label: "to 1⁄16" },
  ],
};

/** Whose rail this is, and the way out. */
function AccountMenu() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const who = useQuery(queries.who);
  if (!who.data) return null;
  const leave = async () => {
    await answer(api.DELETE("/api/v1/session"));
    forgetDrafts();
    void client.resetQueries();
    await navigate("/");
  };
  const items = [
    { key: "account", label: <Link to="/account">Account</Link> },
    ...(who.data.household ? [] : [{ key: "out", label: "Sign out", onClick: () => void leave() }]),
  ];
  return (
    <Dropdown menu={{ items }} trigger={["click"]}>
      <Button type="text" icon={<UserOutlined />} aria-label={`Account: ${who.data.name}`}>
        <span className={styles["name"]}>{who.data.name}</span>
      </Button>
    </Dropdown>
  );
}

/** The bar that is on every screen: home, the tape, light, keys. */
export function Shell() {
  const { tape, setTape, dark, setDark } = useSettings();
  const [keys, setKeys] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.matches("input, textarea, select");
      if (event.key === "?" && !typing) setKeys(true);
    };
    addEventListener("keydown", onKey);
    return () => {
      removeEventListener("keydown", onKey);
    };
  }, []);
  const unit = tape.startsWith("in") ? "in" : "cm";
  return (
    <>
      <header className={styles["bar"]}>
        <Link to="/rail" className={styles["brand"]}>
          <img src="/vemble.svg" alt="" width={28} height={28} /> Vemble
        </Link>
        <nav className={styles["places"]} aria-label="Places">
          <NavLink to="/rail">Rail</NavLink>
          <NavLink to="/evenings">Evenings</NavLink>
          <NavLink to="/people">People</NavLink>
          <NavLink to="/book">Book</NavLink>
        </nav>
        <div className={styles["tools"]}>
          <Segmented<"cm" | "in">
            aria-label="Unit"
            options={[
              { value: "cm", label: "cm" },
              { value: "in", label: "inches" },
            ]}
            value={unit}
            onChange={(chosen) => {
              setTape(chosen);
            }}
          />
          <Select<Tape>
            aria-label="Finest mark of the tape"
            className={clsx(styles["mark"])}
            variant="borderless"
            options={MARKS[unit]}
            value={tape}
            onChange={setTape}
          />
          <AccountMenu />
          <Tooltip title={dark ? "Light" : "Dark"}>
            <Button
              type="text"
              aria-label={dark ? "Switch to light" : "Switch to dark"}
              icon={dark ? <SunOutlined /> : <MoonOutlined />}
              onClick={() => {
                setDark(!dark);
              }}
            />
          </Tooltip>
          <Tooltip title="Keys ( ? )">
            <Button
              type="text"
              aria-label="Keys"
              icon={<QuestionOutlined />}
              onClick={() => {
                setKeys(true);
              }}
            />
          </Tooltip>
        </div>
      </header>
      <Outlet />
      <Modal
        title="Keys"
        open={keys}
        footer={null}
        onCancel={() => {
          setKeys(false);
        }}
      >
        <dl className={styles["keys"]}>
          <dt>
            <kbd>Enter</kbd>
          </dt>
          <dd>in the pin list: station, then amount, then the next pin</dd>
          <dt>
            <kbd>←</kbd> <kbd>→</kbd>
          </dt>
          <dd>on a pin or an end in the drawing: along the seam, one tape mark</dd>
          <dt>
            <kbd>↑</kbd> <kbd>↓</kbd>
          </dt>
          <dd>on a pin in the drawing: more or less, one tape mark</dd>
          <dt>
            <kbd>Delete</kbd>
          </dt>
          <dd>on a pin in the drawing: take the pin out</dd>
          <dt>
            <kbd>Space</kbd>
          </dt>
          <dd>while sewing: the task at hand is done</dd>
          <dt>
            <kbd>Ctrl</kbd> <kbd>Z</kbd>
          </dt>
          <dd>
            undo; with <kbd>Shift</kbd> redo
          </dd>
          <dt>
            <kbd>?</kbd>
          </dt>
          <dd>these keys</dd>
        </dl>
      </Modal>
    </>
  );
}
