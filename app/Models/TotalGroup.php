<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Totals\TotalReport;

/**
 * One group of a control total of a tally.
 *
 * @phpstan-import-type GroupDocument from TotalReport
 *
 * @property int $tally_id
 * @property int $number of the total
 * @property int $place from 1, those that differ most first
 * @property GroupDocument $figures
 */
final class TotalGroup extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    /** The total that it is a group of. */
    public function total(): TallyTotal
    {
        return TallyTotal::query()->where(['tally_id' => $this->tally_id, 'number' => $this->number])->firstOrFail();
    }

    protected $guarded = [];

    protected $casts = ['figures' => 'array'];
}
