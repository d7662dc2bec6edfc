/** Links by which readers see the releases and the errata of theirs; each can be withdrawn. */
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { ToldOnce } from "../ui/told-once";
import { LinkForm } from "./link-form";
import { useLinkActs, useLinks } from "./use-releases";

export function Readers({ design }: { design: Design }) {
  const links = useLinks(design);
  const { make, withdraw } = useLinkActs(design);
  const address = make.data?.address ? `${window.location.origin}${make.data.address}` : null;
  return (
    <section aria-label="Links for readers" className="mt-4 border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Links for readers</h3>
      <p className="mb-2 text-sm text-soft">
        Whoever has a link reads the newest release, and what is different from an earlier one. No account is
        needed.
      </p>
      <ul className="mb-2 text-sm">
        {(links.data ?? []).map((link) => (
          <li key={link.id} className="flex items-center justify-between gap-2">
            <span>
              {link.note || "without a note"},{" "}
              {link.revoked ? "withdrawn" : `until ${link.expires.slice(0, 10)}`}
            </span>
            {!link.revoked && (
              <Confirm
                trigger={
                  <Button weight="quiet" aria-label={`Withdraw the link ${link.note || link.id}`}>
                    Withdraw
                  </Button>
                }
                title="Withdraw this link?"
                about="Whoever has it reads nothing by it any more. Files that they saved stay theirs."
                yes="Withdraw it"
                onYes={() => withdraw.mutate(link.id)}
              />
            )}
          </li>
        ))}
      </ul>
      <LinkForm
        label="For whom"
        usual={365}
        busy={make.isPending}
        onMake={(note, days) => make.mutate({ note, days })}
      />
      <Refused error={make.error ?? withdraw.error} />
      {address && <ToldOnce what="The new link" address={address} className="mt-2" />}
    </section>
  );
}
