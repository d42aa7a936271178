<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * How well some columns tell the rows of a delivery apart, counted on the whole delivery.
 *
 * @property int $id
 * @property int $delivery_id
 * @property list<string> $columns
 * @property string $state queued, counted or failed
 * @property int|null $rows
 * @property int|null $unique_rows
 * @property int|null $repeated_rows
 * @property int|null $unkeyed_rows
 */
final class KeyCount extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['columns' => 'array'];
}
