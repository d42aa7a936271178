<?php

declare(strict_types=1);

namespace NineTally\Docs;

/** What ships with the application and was made elsewhere, with the licence that its own description names. */
final readonly class Licences
{
    public function page(): string
    {
        $root = dirname(__DIR__);
        $page =
            Reference::HEAD.
            "# Licences\n\nNine Tally is under the MIT licence (`LICENSE`). With it ship these packages, each with its own licence ".
            "text in `vendor/` or `node_modules/`. Debian's packages (PHP, PostgreSQL, nginx, supervisor, Chromium) are installed ".
            "and not shipped.\n";
        foreach (['PHP' => $this->ofComposer($root), 'the page' => $this->ofNpm($root)] as $where => $packages) {
            ksort($packages);
            $page .= "\n## In {$where}\n\n| package | version | licence |\n| --- | --- | --- |\n";
            foreach ($packages as $name => [$version, $licence]) {
                $page .= "| {$name} | {$version} | {$licence} |\n";
            }
        }

        return $page;
    }

    /** @return array<string, array{string, string}> version and licence, by name */
    private function ofComposer(string $root): array
    {
        /**
         * @var array{packages: list<array{name: string, version: string, license?: list<string>}>, "dev-package-names": list<string>}
         *     $installed
         */
        $installed = self::json("{$root}/vendor/composer/installed.json");
        $packages = [];
        foreach ($installed['packages'] as $package) {
            if (! in_array($package['name'], $installed['dev-package-names'], true) && ! str_starts_with($package['name'], 'nine-tally/')) {
                $packages[$package['name']] = [ltrim($package['version'], 'v'), implode(' or ', $package['license'] ?? ['not named'])];
            }
        }

        return $packages;
    }

    /** @return array<string, array{string, string}> */
    private function ofNpm(string $root): array
    {
        /** @var array{packages: array<string, array{version?: string, license?: string, dev?: bool, optional?: bool}>} $lock */
        $lock = self::json("{$root}/package-lock.json");
        $packages = [];
        foreach ($lock['packages'] as $path => $package) {
            if ($path !== '' && ! ($package['dev'] ?? false) && ! ($package['optional'] ?? false)) {
                $name = substr($path, (int) strrpos($path, 'node_modules/') + strlen('node_modules/'));
                $packages[$name] = [$package['version'] ?? '', $package['license'] ?? 'not named'];
            }
        }

        return $packages;
    }

    /** @return array<array-key, mixed> */
    private static function json(string $file): array
    {
        $read = json_decode((string) file_get_contents($file), true, 64, JSON_THROW_ON_ERROR);

        return is_array($read) ? $read : [];
    }
}
