<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\AskForSnapshot;
use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Sources\DrawnQueries;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/**
 * Asks again, for both sides at once, what their newest deliveries were asked of databases. A side that came as files stays as it is. What
 * comes of it is taken and tallied by {@see AdvanceDraws}.
 */
final readonly class DrawDataset
{
    public function __construct(private Connection $database, private DrawnQueries $queries, private AskForSnapshot $ask) {}

    /**
     * @param  CarbonImmutable|null  $due  by the schedule; null: the person asks for it now
     *
     * @throws Conflict when nothing of it comes from a database, or it is being drawn already
     */
    public function __invoke(Dataset $dataset, User $person, ?CarbonImmutable $due = null): Draw
    {
        $queries = $this->queries->of($dataset);
        if ($queries === []) {
            throw Conflict::because(
                'nothing-to-draw',
                'Neither side was drawn from a source. Take the rows of a query or a table, or files, once, in Deliver; from then on they '.
                    'can be drawn again.',
            );
        }

        return $this->database->transaction(function () use ($dataset, $person, $due, $queries): Draw {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $going = Draw::query()->where('dataset_id', $dataset->id)->whereIn('state', DrawState::going())->first();
            if ($going !== null && $due === null) {
                throw Conflict::because('drawn-already', 'It is being drawn already. Wait until that has ended.');
            }
            $draw = Draw::query()->create([
                'dataset_id' => $dataset->id,
                'due_at' => $due,
                'state' => $going === null ? DrawState::Drawing : DrawState::Refused,
                'user_id' => $person->id,
            ]);
            if ($going !== null) {
                $draw->goOn(
                    DrawState::Refused,
                    "Not drawn, for the one of {$going->created_at->toIso8601ZuluString()} was still going on.",
                );

                return $draw;
            }
            $receipts = [];
            foreach ($queries as $side => $parts) {
                foreach ($parts as ['query' => $query, 'label' => $label]) {
                    $receipt = ($this->ask)($dataset, Side::from($side), $query['source'], $query['sql'], $person, $query['values'] ?? []);
                    $receipts[$side][] = ['receipt' => $receipt->id, 'label' => $label];
                }
            }
            $draw->update(['receipts' => $receipts]);
            $draw->goOn(DrawState::Drawing, 'Asked: '.implode('; ', array_map(
                static fn(string $side, array $parts): string => "the {$side} from ".implode(
                    ', ',
                    array_unique(array_map(static fn(array $part): string => $part['query']['source'], $parts)),
                ),
                array_keys($queries),
                $queries,
            )).'.');

            return $draw;
        });
    }
}
