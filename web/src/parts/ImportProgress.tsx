import { useMutation, useQuery } from "@tanstack/react-query";
import { api, body } from "../api/client";
import { Button } from "../ui/Button";

const ASKED_EVERY_MS = 250;

/** How far a long piece of work is; it can be cancelled, and then `cancelled` is said. */
export function ImportProgress({
  id,
  stop = "Cancel the import",
  cancelled = "Removing what was imported",
}: {
  id: string;
  stop?: string;
  cancelled?: string;
}) {
  const params = { path: { import_id: id } };
  const far = useQuery({
    queryKey: ["import", id],
    queryFn: () => body(api.GET("/api/imports/{import_id}", { params })),
    refetchInterval: ASKED_EVERY_MS,
    retry: false,
  });
  const cancel = useMutation({
    mutationFn: () => body(api.DELETE("/api/imports/{import_id}", { params })),
  });
  const { stage = "sending", done = 0, of = 0 } = far.data ?? {};
  return (
    <div role="status" className="flex items-center gap-4">
      <span className="flex-1">
        {cancel.isPending || cancel.isSuccess ? cancelled : stage}
        {of > 1 ? `, ${done} of ${of}` : ""}
        <progress
          className="mt-1 block w-full accent-next"
          max={Math.max(of, 1)}
          value={done}
          aria-label={stage}
        />
      </span>
      <Button kind="plain" type="button" onClick={() => cancel.mutate()}>
        {stop}
      </Button>
    </div>
  );
}
