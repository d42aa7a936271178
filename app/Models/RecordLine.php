<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A value without a record, or a record that nothing refers to.
 *
 * @property int $tally_id
 * @property int $number of the rule
 * @property string $list a kind of values without a record, or the side whose records nothing refers to
 * @property int $place from 1
 * @property array{values: list<string>, rows?: int, first?: list<string>, records?: int, part?: int, line?: int} $figures
 */
final class RecordLine extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    /** Of records that nothing refers to, before the name of their side. */
    public const UNREFERENCED = 'unreferenced ';

    protected $guarded = [];

    protected $casts = ['figures' => 'array'];
}
