<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Adapters\Storage\BlobStore;
use App\Models\DeliveryPart;
use App\Models\Report;
use Illuminate\Console\Command;

/** Reads everything that was delivered or reported, and holds it against its digest. */
final class CheckBytes extends Command
{
    protected $signature = 'nine-tally:check';

    protected $description = 'Holds the bytes of every delivery and report against the digest under which they are kept';

    public function handle(BlobStore $blobs): int
    {
        $kept = [];
        foreach (DeliveryPart::query()->orderBy('delivery_id')->get(['digest', 'file_name', 'delivery_id']) as $part) {
            $kept[$part->digest] ??= "{$part->file_name} (delivery {$part->delivery_id})";
        }
        foreach (Report::query()->orderBy('id')->get(['id', 'pdf_digest']) as $report) {
            $kept[$report->pdf_digest] ??= "report {$report->id}";
        }
        $damaged = 0;
        foreach ($kept as $digest => $what) {
            if (! $blobs->isWhole((string) $digest)) {
                $damaged++;
                $this->error("Damaged or gone: {$what}, SHA-256 {$digest}");
            }
        }
        $this->info(sprintf('%d of %d are as they were.', count($kept) - $damaged, count($kept)));

        return $damaged === 0 ? self::SUCCESS : self::FAILURE;
    }
}
