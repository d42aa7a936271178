<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Storage\BlobStore;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** Reads everything that was delivered or reported, and holds it against its digest. */
final class CheckBytes extends Command
{
    protected $signature = 'nine-tally:check';

    protected $description = 'Holds the bytes of everything that is kept against the digest under which they are kept';

    public function handle(BlobStore $blobs, Connection $database): int
    {
        $kept = [];
        foreach (DatabaseRow::all($database, 'SELECT digest, what FROM kept_digests WHERE is_stored ORDER BY what') as $row) {
            $kept[$row->text('digest')] ??= $row->text('what');
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
