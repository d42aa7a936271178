<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Queries\Board\LookedUp;
use App\Queries\Tally\MatchedOrder;
use Illuminate\Support\Collection;

/** Which of the datasets that are drawn come first: what is looked up is delivered before, what numbers are taken from is tallied. */
final readonly class DrawOrder
{
    /** It has no key, and others look it up: nobody tallies it. */
    public function isLookedUpAlone(Dataset $dataset): bool
    {
        return ($dataset->draftNow()?->keyNames() ?? []) === [] && LookedUp::among($this->datasets($dataset))->has($dataset);
    }

    /** @return list<string> the names of those that are being drawn and come before it */
    public function before(Dataset $dataset): array
    {
        $looksUp = LookedUp::among($this->datasets($dataset)->where('id', $dataset->id));
        $order = MatchedOrder::of($dataset->migration);
        // In a circle nobody is first; that it is one is said when it is tallied.
        $needs = $order->circle($dataset) === null ? $order->needs($dataset) : [];
        $names = [];
        foreach (Draw::query()->with('dataset')->whereIn('state', DrawState::going())->get() as $draw) {
            $isFirst =
                in_array($draw->dataset_id, $needs, true) ||
                (! $draw->state->isDelivered() && $draw->dataset->migration_id === $dataset->migration_id && $looksUp->has($draw->dataset));
            if ($isFirst && $draw->dataset_id !== $dataset->id) {
                $names[] = $draw->dataset->name;
            }
        }

        return $names;
    }

    /** @return Collection<int, Dataset> */
    private function datasets(Dataset $dataset): Collection
    {
        return $dataset->migration->datasets()->with('draft')->get()->toBase();
    }
}
