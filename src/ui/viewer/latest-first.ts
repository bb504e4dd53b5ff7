/** Starts tasks of which only so many may be under way, the one asked for last first: whoever has moved on wants what is here now, not what was passed. */
export function latestFirst(mostAtOnce: number): <Value>(task: () => Promise<Value>) => Promise<Value> {
  const waiting: (() => void)[] = [];
  let underWay = 0;
  const next = () => {
    if (underWay < mostAtOnce) waiting.pop()?.();
  };
  return (task) =>
    new Promise((resolve, reject) => {
      waiting.push(() => {
        underWay += 1;
        task()
          .then(resolve, reject)
          .finally(() => {
            underWay -= 1;
            next();
          });
      });
      // What is asked for together is compared before anything starts.
      queueMicrotask(next);
    });
}
