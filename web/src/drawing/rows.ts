/** How many rows the distances of so many feet take: in fewer their figures cover each other on a narrow sheet. */
export const rowsFor = (feet: number) => (feet > 4 ? 3 : feet > 2 ? 2 : 1)
