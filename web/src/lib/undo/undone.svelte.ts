/** How often something was taken back since the screen came: whoever shows what it did looks anew. */
class Undone {
  count = $state(0);
}

export const undone = new Undone();
