import { Providers } from "@/screens/session/providers";
import { ShopScreen } from "@/screens/shop/shop";
import { backupState } from "@/server/daily-backup";
import { proofHistory, readShopVersion } from "@/server/shop";

export const dynamic = "force-dynamic";

export default function Page() {
  return (
    <Providers>
      <ShopScreen initial={readShopVersion()} proofs={proofHistory()} backups={backupState()} />
    </Providers>
  );
}
