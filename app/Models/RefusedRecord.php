<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $number
 * @property int $part of the delivery, from 1
 * @property int $line
 * @property string $reason
 * @property string $sentence
 * @property string $raw
 */
final class RefusedRecord extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];
}
