import { queryOptions } from "@tanstack/react-query";
import { call, client, type Schemas } from "../api/client";

export type Ask = Schemas["AskRequest"]["asked"];
export type Question = Ask["question"];
export type Answer = Schemas["AskReply"]["answer"];
export type Found = Schemas["Found"];

/** The questions in the order of the work, in a person's own words. */
export const QUESTIONS: Record<Question, { title: string; note: string }> = {
  unmould: { title: "When may I turn it out?", note: "cooling and setting, fridge against freezer" },
  how_much: { title: "How much do I melt?", note: "so many of these, no more and no less" },
  still: { title: "Can I still pour, dip, bend?", note: "one reading says it" },
  heat: { title: "Which bursts, how long?", note: "wafers, couverture; isomalt, sugar" },
  seed: { title: "How much seed?", note: "dark, milk, white; how warm" },
  colour: { title: "Which colours, how many drops?", note: "for this thickness, of this melt" },
  keeps: { title: "Will it sweat, will it stick?", note: "out of the cold, in this room" },
  stands: { title: "Does it stand?", note: "joined pieces, their foot and their wire" },
};

const BLANK: { [Q in Question]: Extract<Ask, { question: Q }> } = {
  unmould: { question: "unmould", material: null, thickness_m: null, mould: null, place_id: null },
  how_much: {
    question: "how_much",
    quantity: null,
    piece_id: null,
    shape: null,
    across_m: null,
    thickness_m: null,
    material: null,
  },
  still: { question: "still", material: null, doing: null, degc: null, kg: null, thickness_m: null },
  heat: { question: "heat", material: null, kg: null },
  seed: { question: "seed", material: null, kg: null },
  colour: { question: "colour", wanted: null, material: null, kg: null, thickness_m: null },
  keeps: { question: "keeps", material: null, thickness_m: null, place_id: null },
  stands: { question: "stands", piece_id: null },
};

const isQuestion = (text: string | null): text is Question => text !== null && text in BLANK;

/** The address of a question with what is told of it. */
export function askAddress(ask: Ask): string {
  const told = Object.entries(ask).filter(([name, value]) => name !== "question" && value !== null);
  return `/work-out?${new URLSearchParams([["ask", ask.question], ...told.map(([name, of]) => [name, String(of)] as [string, string])])}`;
}

/** The question of an address; null: none. */
export function askOf(params: URLSearchParams): Ask | null {
  const question = params.get("ask");
  if (!isQuestion(question)) return null;
  const told = Object.keys(BLANK[question])
    .filter((name) => name !== "question" && params.has(name))
    .map((name) => [name, NUMBERS.has(name) ? Number(params.get(name)) : params.get(name)]);
  return { ...BLANK[question], ...Object.fromEntries(told) };
}

/** Where one comes from with something to find: the field is ready to be typed into. */
export const FIND = "find";

const NUMBERS = new Set(["thickness_m", "across_m", "quantity", "kg", "degc"]);

export const blankAsk = (question: Question): Ask => BLANK[question];

export const answerQuery = (asked: Ask) =>
  queryOptions({
    queryKey: ["figures", "ask", asked],
    queryFn: async ({ signal }) => (await call(client.POST("/api/ask", { body: { asked }, signal }))).answer,
    retry: false,
    gcTime: 5_000,
    placeholderData: (before) => (before?.question === asked.question ? before : undefined),
  });

export const findQuery = (said: string) =>
  queryOptions({
    queryKey: ["find", said],
    queryFn: async ({ signal }) => (await call(client.POST("/api/find", { body: { said }, signal }))).found,
    retry: false,
    gcTime: 5_000,
    placeholderData: (before) => before,
  });
