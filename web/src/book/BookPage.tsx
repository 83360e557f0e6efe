import { Segmented } from "antd";
import { useSearchParams } from "react-router";
import { PracticePart } from "./PracticePart";
import { SignsPart } from "./SignsPart";
import { WordsPart } from "./WordsPart";
import styles from "./book.module.css";

const PARTS = {
  signs: { title: "What the cloth says", Part: SignsPart },
  practice: { title: "Practice", Part: PracticePart },
  words: { title: "Words", Part: WordsPart },
};
type Name = keyof typeof PARTS;

/** The book: what the cloth says, practice rounds, and the words of the trade. */
export default function BookPage() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get("part");
  const open = (Object.keys(PARTS) as Name[]).find((name) => name === asked) ?? "signs";
  const { title, Part } = PARTS[open];
  return (
    <main className={styles["book"]}>
      <div className={styles["head"]}>
        <h1>{title}</h1>
        <Segmented<Name>
          aria-label="Part of the book"
          options={(Object.keys(PARTS) as Name[]).map((name) => ({ value: name, label: PARTS[name].title }))}
          value={open}
          onChange={(part) => {
            setSearch({ part }, { replace: true });
          }}
        />
      </div>
      <Part />
    </main>
  );
}
