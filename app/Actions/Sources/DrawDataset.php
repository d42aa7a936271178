<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\AskForSnapshot;
use App\Jobs\AskGroups;
use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Sources\DrawnQueries;
use App\Queries\Sources\InPlaceQuestions;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/**
 * Asks again, for both sides at once, what their newest deliveries were asked of databases. A side that came as files stays as it is. What
 * comes of it is taken and tallied by {@see AdvanceDraws}.
 *
 * @phpstan-import-type Drawn from DrawnQueries
 */
final readonly class DrawDataset
{
    public function __construct(
        private Connection $database,
        private DrawnQueries $queries,
        private AskForSnapshot $ask,
        private InPlaceQuestions $questions,
    ) {}

    /**
     * @param  CarbonImmutable|null  $due  by the schedule; null: the person asks for it now
     * @param  bool  $inPlace  both databases are asked first, and rows of groups that differ are drawn
     *
     * @throws Conflict when nothing of it comes from a database, or it is being drawn already
     */
    public function __invoke(Dataset $dataset, User $person, ?CarbonImmutable $due = null, bool $inPlace = false): Draw
    {
        $queries = $this->queries->of($dataset);
        if ($queries === []) {
            throw Conflict::because(
                'nothing-to-draw',
                'Neither side was drawn from a source. Take the rows of a query or a table, or files, once, in Deliver; from then on they '.
                    'can be drawn again.',
            );
        }

        $hindrance = $inPlace ? $this->questions->hindrance($dataset) : null;
        if ($hindrance !== null) {
            throw Conflict::because('not-in-place', "Both sides cannot be asked where they stand: {$hindrance}. Draw them as a whole.");
        }

        return $this->database->transaction(function () use ($dataset, $person, $due, $queries, $inPlace): Draw {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $going = Draw::query()->where('dataset_id', $dataset->id)->whereIn('state', DrawState::going())->first();
            if ($going !== null && $due === null) {
                throw Conflict::because('drawn-already', 'It is being drawn already. Wait until that has ended.');
            }
            $draw = Draw::query()->create([
                'dataset_id' => $dataset->id,
                'due_at' => $due,
                'state' => $going !== null ? DrawState::Refused : ($inPlace ? DrawState::Asking : DrawState::Drawing),
                'user_id' => $person->id,
            ]);
            if ($going !== null) {
                $draw->goOn(
                    DrawState::Refused,
                    "Not drawn, for the one of {$going->created_at->toIso8601ZuluString()} was still going on.",
                );

                return $draw;
            }
            $from = implode('; ', array_map(
                static fn(string $side, array $parts): string => "the {$side} from ".implode(
                    ', ',
                    array_unique(array_map(static fn(array $part): string => $part['query']['source'], $parts)),
                ),
                array_keys($queries),
                $queries,
            ));
            if ($inPlace) {
                $draw->goOn(DrawState::Asking, "Asked which groups of rows differ: {$from}.");
                AskGroups::dispatch($draw->id)->afterCommit();

                return $draw;
            }
            $this->askForAll($draw, $queries);
            $draw->goOn(DrawState::Drawing, "Asked: {$from}.");

            return $draw;
        });
    }

    /**
     * All rows of both sides.
     *
     * @param  array<'source'|'target', non-empty-list<Drawn>>  $queries
     */
    public function askForAll(Draw $draw, array $queries): void
    {
        $receipts = [];
        foreach ($queries as $side => $parts) {
            foreach ($parts as ['query' => $query, 'label' => $label]) {
                $receipt = ($this->ask)($draw->dataset, Side::from($side), $query, $draw->user);
                $receipts[$side][] = ['receipt' => $receipt->id, 'label' => $label];
            }
        }
        $draw->update(['receipts' => $receipts]);
    }
}
