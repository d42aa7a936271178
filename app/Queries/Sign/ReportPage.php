<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Adapters\Seal\SealKeys;
use App\Models\Migration;
use App\Models\Tally;
use Illuminate\Contracts\View\Factory;
use Illuminate\Foundation\Vite;

/** The report as one HTML document that needs nothing else: fonts are part of it, and it may load nothing. */
final readonly class ReportPage
{
    /** For the answer that carries the page: styles and fonts of the document itself, and no request at all. */
    public const POLICY = "default-src 'none'; style-src 'unsafe-inline'; font-src data:; base-uri 'none'; form-action 'none'; ".
        "frame-ancestors 'self'";

    public function __construct(
        private Factory $views,
        private ReportContent $content,
        private FirstPage $firstPage,
        private MigrationReport $migrationReport,
        private SealKeys $keys,
        private Vite $assets,
    ) {}

    public function html(Tally $tally): string
    {
        return $this->views->make('report', [
            ...($this->content)($tally),
            ...$this->firstPage->of($tally),
            'textFont' => $this->font('atkinson-hyperlegible-next'),
            'cellFont' => $this->font('atkinson-hyperlegible-mono'),
            'policy' => self::POLICY,
        ])->render();
    }

    public function ofMigration(Migration $migration): string
    {
        return $this->views->make('report.migration', [
            ...$this->migrationReport->of($migration),
            'sealKey' => $this->keys->key()->fingerprint(),
            'textFont' => $this->font('atkinson-hyperlegible-next'),
            'cellFont' => $this->font('atkinson-hyperlegible-mono'),
            'policy' => self::POLICY,
        ])->render();
    }

    /** As the build of the front end has it: a server needs none of the packages that it was made from. */
    private function font(string $package): string
    {
        return base64_encode(
            $this->assets->content("node_modules/@fontsource-variable/{$package}/files/{$package}-latin-wght-normal.woff2"),
        );
    }
}
