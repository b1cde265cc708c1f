/** The front end's boundaries: features apart, domain pure, Radix only in ui, no cycles. */
module.exports = {
  forbidden: [
    { name: "no-cycles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "features-apart",
      comment: "a feature knows charts, ui, domain, api and app, never another feature",
      severity: "error",
      from: { path: "^src/features/([^/]+)/" },
      to: { path: "^src/features/([^/]+)/", pathNot: "^src/features/$1/" },
    },
    {
      name: "domain-pure",
      comment: "formatting and the tap queue need nothing but themselves",
      severity: "error",
      from: { path: "^src/domain/", pathNot: "[.]test[.]ts$" },
      to: { pathNot: "^src/domain/" },
    },
    {
      name: "radix-in-ui",
      severity: "error",
      from: { pathNot: "^src/ui/" },
      to: { path: "node_modules/radix-ui|node_modules/@radix-ui|^radix-ui$" },
    },
    {
      name: "testing-in-tests",
      severity: "error",
      comment: "what tests share is in no page",
      from: { pathNot: "[.]test[.]tsx?$|^src/testing/" },
      to: { path: "^src/testing/" },
    },
    {
      name: "below-parts",
      severity: "error",
      from: { path: "^src/(ui|charts|api|domain)/" },
      to: { path: "^src/parts/" },
    },
    {
      name: "parts-below-features",
      severity: "error",
      comment:
        "parts put ui, charts and api together for several features; nothing below knows them",
      from: { path: "^src/(ui|charts|api|domain|parts)/" },
      to: { path: "^src/(features|app)/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "types"],
      extensions: [".ts", ".tsx", ".js"],
    },
  },
};
