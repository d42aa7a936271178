<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Records\RequiredRecord;

/**
 * What came of a rule that values must have a record, in a tally.
 *
 * @phpstan-import-type RecordFigures from RecordReport
 *
 * @property int $tally_id
 * @property int $number the place in the plan, from 1
 * @property RecordFigures $figures
 */
final class RecordCheck extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['figures' => 'array'];

    public function rule(): RequiredRecord
    {
        return RequiredRecord::fromArray($this->figures['rule']);
    }
}
