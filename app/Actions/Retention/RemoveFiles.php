<?php

declare(strict_types=1);

namespace App\Actions\Retention;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\KeptDigests;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\Purge;
use App\Models\PurgeEnd;
use App\Models\Workbook;
use Illuminate\Database\Connection;

/** Removes the files of what was purged, unless something that was not purged is kept in the same bytes. Done twice it is done once. */
final readonly class RemoveFiles
{
    private const OF_PURGE = <<<'SQL'
        WITH tallies AS (SELECT tally_id FROM purged_tallies WHERE purge_id = :purge)
        SELECT digest::text FROM delivery_parts WHERE delivery_id = :delivery
        UNION SELECT packed_in->>'digest' FROM delivery_parts WHERE delivery_id = :delivery AND packed_in IS NOT NULL
        UNION SELECT html_digest::text FROM reports JOIN tallies USING (tally_id)
        UNION SELECT pdf_digest::text FROM reports JOIN tallies USING (tally_id)
        UNION SELECT html_digest FROM report_links JOIN tallies USING (tally_id)
        UNION SELECT html_digest FROM signed_pages JOIN signatures s ON s.id = signature_id JOIN tallies USING (tally_id)
        UNION SELECT digest FROM packs JOIN tallies USING (tally_id)
        SQL;

    public function __construct(
        private Connection $database,
        private BlobStore $blobs,
        private KeptDigests $kept,
        private PreparedSides $sides,
        private WorkbookFiles $workbooks,
    ) {}

    public function __invoke(Purge $purge): void
    {
        $digests = DatabaseRow::all($this->database, self::OF_PURGE, ['purge' => $purge->id, 'delivery' => $purge->delivery_id]);
        foreach ($digests as $row) {
            $this->blobs->forget($row->text('digest'), $this->kept->has(...));
        }
        $this->sides->forget($purge->delivery);
        $datasets = $this->database
            ->table('tallies')
            ->join('purged_tallies', 'tally_id', '=', 'tallies.id')
            ->where('purge_id', $purge->id)
            ->pluck('dataset_id')
            ->push($purge->delivery->dataset_id);
        // What was written later was written without the content.
        Workbook::query()
            ->whereIn('dataset_id', $datasets)
            ->where('created_at', '<=', $purge->created_at)
            ->get()
            ->each($this->workbooks->remove(...));
        PurgeEnd::query()->insertOrIgnore(['purge_id' => $purge->id, 'created_at' => now()]);
    }
}
