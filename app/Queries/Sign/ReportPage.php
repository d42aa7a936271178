<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Adapters\Seal\SealKeys;
use App\Adapters\Storage\BlobStore;
use App\Models\Migration;
use App\Models\SignedPage;
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
        private BlobStore $blobs,
        private Vite $assets,
    ) {}

    /** As it was accepted, byte for byte, where it was; else as it is now. */
    public function html(Tally $tally): string
    {
        $signed = SignedPage::standing($tally->id);
        if ($signed !== null && $this->blobs->has($signed->html_digest)) {
            return (string) file_get_contents($this->blobs->path($signed->html_digest));
        }

        return $this->views->make('report', [
            ...($this->content)($tally),
            ...$this->firstPage->of($tally),
            'textFont' => $this->font('atkinson-hyperlegible-next'),
            'digitFont' => $this->font('figtree'),
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
            'digitFont' => $this->font('figtree'),
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
