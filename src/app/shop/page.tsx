import { Providers } from "@/screens/session/providers";
import { ShopScreen } from "@/screens/shop/shop";
import { backupState } from "@/server/daily-backup";
import { proofHistory, readShop } from "@/server/shop";

export const dynamic = "force-dynamic";

export default function Page() {
  return (
    <Providers>
      <ShopScreen initial={readShop()} proofs={proofHistory()} backups={backupState()} />
    </Providers>
  );
}
