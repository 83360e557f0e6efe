/** The day it is for whoever sits here, as documents hold a day. */
export function today(): string {
  const now = new Date();
  const two = (figure: number) => String(figure).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
