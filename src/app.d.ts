declare global {
  namespace App {
    interface Error {
      message: string;
      /** Set where waiting helps: the page tries again by itself. */
      waiting?: boolean;
    }
  }
}

export {};
