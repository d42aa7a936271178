<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Dataset;
use App\Models\User;
use App\Queries\Tally\MatchedOrder;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** Columns of the matched rows of a dataset that are kept from somebody who takes numbers from them. */
final readonly class MatchedColumns
{
    public function __construct(private Masks $masks) {}

    /** @return list<string> as the table of matched rows calls them */
    public function hidden(?Dataset $dataset, ?User $person): array
    {
        if ($dataset === null) {
            return [];
        }
        // Where datasets take numbers from each other in a circle nothing can be tallied, and nobody could say what is made of what.
        $isCircular = MatchedOrder::circleOf($dataset) !== null;
        [$source, $target] = Sides::each(fn(Side $side): array => $isCircular
            ? ($dataset->latestDelivery($side)?->namedColumns()->names ?? [])
            : $this->masks->ofSide($dataset, $side, $person)->anywhere())->both();

        return AsMatched::columnsOf($source, $target);
    }
}
