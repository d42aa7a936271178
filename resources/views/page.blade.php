<!doctype html>
<html lang="en">
<head>
  <meta charset="utf-8">
  <meta name="viewport" content="width=device-width, initial-scale=1">
  <title>Nine Tally</title>
  <link rel="icon" href="/mark.svg" type="image/svg+xml">
  @vite('resources/js/main.ts')
</head>
<body>
  <div id="page"></div>
  <noscript>Nine Tally needs JavaScript.</noscript>
</body>
</html>
