import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

/** After a page is changed its heading has the focus, so that it is read aloud and Tab goes on from there. */
export function useHeadingFocus() {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    const focus = () => {
      const heading = document.querySelector<HTMLElement>("main h1");
      if (!heading) return false;
      const now = document.activeElement;
      // a field that asked for the focus keeps it
      if (now === null || now === document.body || !now.isConnected || !now.closest("main")) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      }
      return true;
    };
    const watch = new MutationObserver(() => {
      if (focus()) watch.disconnect();
    });
    if (!focus()) watch.observe(document.body, { childList: true, subtree: true });
    return () => watch.disconnect();
  }, [pathname]);
}
