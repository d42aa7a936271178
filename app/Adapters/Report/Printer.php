<?php

declare(strict_types=1);

namespace App\Adapters\Report;

use App\Queries\Sign\ReportPage;
use Symfony\Component\Process\Process;

/**
 * Prints a report's HTML as PDF with headless Chromium: a profile of its own that is thrown away, no name resolved, and a
 * limit on time. The document's own policy (ReportPage::POLICY) forbids scripts and every request; switching scripts off in
 * the browser as well would keep it from printing at all, for its printing page is a script itself.
 */
final readonly class Printer
{
    private const SECONDS = 90;

    public function __construct(private string $chromium, private string $workFolder) {}

    /** @throws \RuntimeException when nothing was printed */
    public function print(string $html): string
    {
        $folder = $this->workFolder.'/print-'.bin2hex(random_bytes(6));
        mkdir($folder, 0700, true);
        try {
            file_put_contents("{$folder}/report.html", $html);
            $process = new Process(
                [
                    $this->chromium,
                    '--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run',
                    '--disable-background-networking', '--disable-component-update', '--disable-sync', '--disable-dev-shm-usage',
                    '--disable-extensions', '--disable-crash-reporter', '--host-resolver-rules=MAP * ~NOTFOUND', '--no-pdf-header-footer',
                    '--export-tagged-pdf', '--generate-pdf-document-outline',
                    "--user-data-dir={$folder}/profile",
                    "--print-to-pdf={$folder}/report.pdf",
                    "file://{$folder}/report.html",
                ],
                $folder,
                ['HOME' => $folder, 'XDG_CONFIG_HOME' => $folder, 'XDG_CACHE_HOME' => $folder],
                null,
                self::SECONDS,
            );
            $process->disableOutput();
            $process->run();
            $pdf = is_file("{$folder}/report.pdf") ? (string) file_get_contents("{$folder}/report.pdf") : '';

            return str_starts_with($pdf, '%PDF') ? $pdf : throw new \RuntimeException('The browser printed nothing.');
        } finally {
            (new Process(['rm', '-rf', $folder]))->run();
        }
    }
}
