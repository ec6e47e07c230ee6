// What this browser keeps of its own is never waited for long, and never missed: in a private window, on a full disk, or where its store
// does not answer at all, a page goes on as if nothing were kept. So long it is waited for, milliseconds (ours).
const patience = 1000;

export const quietly = (work) => Promise.race([work().catch(() => undefined), new Promise((resolve) => setTimeout(resolve, patience))]);
