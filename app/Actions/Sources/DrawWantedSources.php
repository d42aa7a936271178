<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\AskForSnapshot;
use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\User;
use App\Models\WantedSources;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/** Draws what an imported plan names, in full, from connections that were chosen for it; from then on it is drawn like any other. */
final readonly class DrawWantedSources
{
    public function __construct(private Connection $database, private AskForSnapshot $ask) {}

    /**
     * @param  array<string, string>  $chosen  connections here, by side and name in the plan with a blank between
     *
     * @throws Conflict when the dataset is being drawn already
     */
    public function __invoke(Dataset $dataset, WantedSources $wanted, array $chosen, User $person): Draw
    {
        return $this->database->transaction(function () use ($dataset, $wanted, $chosen, $person): Draw {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            if (Draw::query()->where('dataset_id', $dataset->id)->whereIn('state', DrawState::going())->exists()) {
                throw Conflict::because('drawn-already', 'It is being drawn already. Wait until that has ended.');
            }
            $receipts = $from = [];
            foreach (Side::cases() as $side) {
                foreach ($wanted->drawn[$side->value] ?? [] as $part) {
                    $name = $chosen["{$side->value} {$part['connection']}"] ?? $part['connection'];
                    $query = ['source' => $name, 'sql' => $part['query']] + (isset($part['values']) ? ['values' => $part['values']] : []);
                    $receipts[$side->value][] = ['receipt' => ($this->ask)($dataset, $side, $query, $person)->id, 'label' => $part['part']];
                    $from["the {$side->value} from {$name}"] = true;
                }
            }
            $draw = Draw::query()->create([
                'dataset_id' => $dataset->id, 'due_at' => null, 'state' => DrawState::Drawing, 'receipts' => $receipts,
                'user_id' => $person->id,
            ]);
            $draw->goOn(DrawState::Drawing, 'Asked, as the plan that was brought says: '.implode('; ', array_keys($from)).'.');
            $wanted->delete();

            return $draw;
        });
    }
}
