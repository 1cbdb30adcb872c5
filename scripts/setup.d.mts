export const root: string;
export function giveUp(sentence: string): never;
export function findProgram(name: string): string | undefined;
export function setUp(options?: { browser?: boolean }): void;
export function runTypeScript(file: string): Promise<void>;
