<?php

declare(strict_types=1);

// Passwords that are tried first, from the package that the npm registry has of them, as PHP that the server keeps in memory.

$root = dirname(__DIR__, 2);
$words = json_decode((string) file_get_contents("{$root}/node_modules/@zxcvbn-ts/language-common/src/passwords.json"), true, 4, JSON_THROW_ON_ERROR);
if (! is_array($words) || count($words) < 10_000) {
    fwrite(STDERR, "The package of common passwords holds no list.\n");
    exit(1);
}
$file = "{$root}/bootstrap/cache/common-passwords.php";
file_put_contents("{$file}.new", '<?php return '.var_export(array_fill_keys(array_map(strval(...), $words), true), true).';');
rename("{$file}.new", $file);
