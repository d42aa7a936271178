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
 * @property int $place from 1, those that differ most first
 * @property GroupDocument $figures
 */
final class TotalGroup extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['figures' => 'array'];
}
