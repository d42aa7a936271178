<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Run;
use App\Models\Tally;
use Illuminate\Support\Facades\DB;

/** Runs that wait for a worker, and all that came of one. */
trait QueuedRuns
{
    private function prepared(): void
    {
        $this->actingAs($this->analyst);
        if ($this->dataset->deliveries()->count() === 0) {
            $this->deliver('source', self::OLD);
            $this->deliver('target', self::NEW);
            $this->match();
        }
        // From here on jobs wait in the queue, as with a worker that has not come yet.
        config(['queue.default' => 'database']);
    }

    private function queued(): Run
    {
        $this->prepared();

        return Run::query()->findOrFail($this->number($this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated(), 'id'));
    }

    /** @return list<mixed> everything a tally says, but its own number */
    private function contentOf(Tally $tally): array
    {
        return [
            $tally->summary,
            DB::table('row_findings')
                ->where('tally_id', $tally->id)
                ->orderBy('sequence')
                ->selectRaw(
                    "sequence, class, class_ordinal, side, key, encode(identity, 'hex') AS identity, source_cells::text, ".
                        "target_cells::text, refusal, differing_cells",
                )
                ->get()
                ->toJson(),
            DB::table('cell_findings')
                ->where('tally_id', $tally->id)
                ->orderBy('sequence')
                ->selectRaw(
                    "sequence, row_sequence, pattern_number, pattern_ordinal, class, cause, source_value, target_value, encode(identity, ".
                        "'hex') AS identity",
                )
                ->get()
                ->toJson(),
            DB::table('patterns')
                ->where('tally_id', $tally->id)
                ->orderBy('number')
                ->get(['number', 'class', 'cause', 'cells', 'examples'])
                ->toJson(),
        ];
    }
}
