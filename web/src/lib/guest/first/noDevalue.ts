// Stands in the first view's script for the library with which a server hands over what it awaited: here nothing is.
export function uneval(): never {
  throw new Error();
}
