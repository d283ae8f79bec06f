import type { ComponentProps } from "react";

/** A form that is sent by its own key or by Enter, and never loads the page anew. */
export function Form({ onSubmit, ...rest }: Omit<ComponentProps<"form">, "onSubmit"> & { onSubmit: () => void }) {
  return (
    <form
      noValidate
      {...rest}
      onSubmit={(e) => {
        e.preventDefault();
        onSubmit();
      }}
    />
  );
}
