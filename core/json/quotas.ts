/**
 * How much of everything there may be. Each is told by an error that says which it is and how much is allowed; `docs/limits.md` lists
 * them for readers.
 */
export const QUOTAS = {
  /** Of a file, or of a document as it is written, in letters. */
  documentLetters: 8 * 1024 * 1024,
  /** Levels of a document: nothing real comes near, and every walk may then recurse. */
  depth: 64,
  /** Of one list or object, before anybody looks at what it is. */
  members: 25_000,
  /** On one shelf. */
  systems: 500,
  /** Of a system. */
  documents: 2_000,
  /** Of all documents of a system as they are written, in letters. */
  systemLetters: 32 * 1024 * 1024,
  /** Of an archive that is taken in, unpacked. */
  unpackedBytes: 32 * 1024 * 1024,
  /** Of a file of tokens. */
  tokens: 20_000,
  /** Lists, objects and what stands in them, together: of a file of tokens, and of any other document. */
  tokenValues: 250_000,
  values: 30_000,
  /** The same that all derived components of a system take of others. */
  derivedValues: 150_000,
  /** Of all modifiers of a system together. */
  contexts: 250,
  /** Of all their contexts, those that hold in each counted with each. */
  tokensInContexts: 200_000,
  /** Of a component. */
  parts: 500,
  rules: 1_000,
  /** Of what lies in the components within one component. */
  partsWithin: 1_000,
  rulesWithin: 5_000,
  parametersWithin: 5_000,
  axesWithin: 2_000,
  /** The same of all components of a system together. */
  partsWithinAll: 5_000,
  rulesWithinAll: 20_000,
  parametersWithinAll: 20_000,
  axesWithinAll: 20_000,
  /** Of any list or object in a document that is none of tokens. */
  entries: 1_000,
  /** Wrong in the rules of a component, or in the tokens of a context: what comes after is not looked at. */
  problemsFound: 1_000,
  /** Of a patch. */
  operations: 5_000,
  /** That a patch copies within a document, in letters. */
  copiedLetters: 1_000_000,
  /** That a patch would need to be taken back. */
  inverseOperations: 200_000,
  /** Of a media query. */
  mediaQueryLetters: 1_000,
  /** Brackets within one another in a text of CSS. */
  brackets: 32,
  /** Of a drawing. */
  iconLetters: 100_000,
  /** Of the text of a value. */
  valueLetters: 4_000,
  /** Of one answer of the server that lists edits: so many, and so many letters of patches; at least one. */
  editsTold: 500,
  lettersTold: 4_000_000,
  /** Of a patch that listeners are told; of a longer one they are told that it is there to be read. */
  eventLetters: 40_000,
  /** That the server computes at a stretch for one request, in milliseconds. */
  workMs: 10_000,
  /** Of what is being sent to the server at once, and of its answers that are on their way, in letters each. */
  lettersUnderWay: 64 * 1024 * 1024,
  /** Of requests that one connection sends before they are answered; that only ask, and are worked on; of questions to the database that wait. */
  requestsAtOnce: 8,
  answersAtOnce: 500,
  questionsWaiting: 2_500,
  /** Of requests that wait to be begun, in letters; and how long one may wait and be worked on as far as can be told, in ms. */
  lettersWaiting: 64 * 1024 * 1024,
  answerMs: 1_700,
  /** Of problems, one by one; the others are counted. */
  problemsTold: 200,
  /** Of a name that a request gives: an author, a key, a change. */
  nameLetters: 64,
  /** Of what the history calls a change, and of a system's title. */
  titleLetters: 200,
  /** Of texts that are remembered with what was made of them, in letters: one, and all of a kind together. */
  rememberedText: 20_000,
  rememberedTexts: 2_000_000,
} as const;
