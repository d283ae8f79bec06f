import type { Shop } from "@/core/shop/settings";

export interface ShopPartProps {
  readonly shop: Shop;
  /** True when it is saved; what was wrong is shown above, and what was typed stays */
  readonly save: (next: Shop) => Promise<boolean>;
}
