<?php

declare(strict_types=1);

use Rector\Config\RectorConfig;
use Rector\Renaming\Rector\Name\RenameClassRector;

// For bin/rename alone, which writes down what becomes of which name.
$renames = __DIR__.'/var/renames.json';
/** @var array<string, string> $names */
$names = is_file($renames) ? json_decode((string) file_get_contents($renames), true, 64, JSON_THROW_ON_ERROR) : [];

return RectorConfig::configure()
    ->withPaths(['app', 'bench', 'bootstrap', 'config', 'core/bin', 'core/src', 'core/tests', 'database', 'docs', 'routes', 'tests'])
    // Only where something was renamed: what names a class by its whole name elsewhere has its reasons.
    ->withImportNames(importNames: getenv('IMPORTS') === 'yes', importShortClasses: false, removeUnusedImports: getenv('IMPORTS') === 'yes')
    ->withConfiguredRule(RenameClassRector::class, $names);
