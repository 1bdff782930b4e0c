import type { ExternalToast } from "sonner";

// What is told in passing comes with a part of its own, which the first sight of the page
// does not wait for.
const told = () => import("sonner").then((m) => m.toast);

/** Tells something in passing. */
export function toast(text: string, more?: ExternalToast) {
  void told().then((t) => t(text, more));
}

toast.error = (text: string) => {
  void told().then((t) => t.error(text));
};
