<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Totals\DistinctValues;
use NineTally\Core\Totals\Share;
use NineTally\Core\Totals\TotalReport;

/**
 * A control total of a tally as it came out, without its groups.
 *
 * @phpstan-import-type TotalDocument from ControlTotal
 * @phpstan-import-type ShareFigures from Share
 * @phpstan-import-type Moves from TotalReport
 * @phpstan-import-type Only from DistinctValues
 *
 * @property int $tally_id
 * @property int $number the place in the plan, from 1
 * @property bool $differs
 * @property int $groups
 * @property array{total: TotalDocument, taken: array{source: array{rows: int, blanks: int, unread: int}, target: array{rows: int,
 *     blanks: int, unread: int}}, source: string|null, target: string|null, difference: string|null, rows: array{source: int, target: int},
 *     shares: list<ShareFigures>, moves: Moves, cancels: bool, keys: array{source: list<string>, target: list<string>}, only: array{
 *     source: Only, target: Only}|null, differing: int,
 *     cancelling: int, tooManyGroups: bool} $figures
 */
final class TallyTotal extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['figures' => 'array', 'differs' => 'boolean'];

    /** How much of the source's total the difference is; a difference from nought is more than any part. */
    public function partThatDiffers(): float
    {
        [$difference, $source] = [abs((float) $this->figures['difference']), abs((float) $this->figures['source'])];

        return $difference === 0.0 ? 0.0 : ($source === 0.0 ? INF : $difference / $source);
    }

    public function total(): ControlTotal
    {
        return ControlTotal::fromArray($this->figures['total']);
    }
}
