<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What an entry of the trail says in words, and where from. It can be purged: its digest stays in the entry.
 *
 * @property int $entry_id
 * @property string $salt so that nobody finds what was purged by trying
 * @property string $about in words; never a value of a cell
 * @property string $address of the network
 */
final class TrailDetail extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'entry_id';

    protected $guarded = [];

    public static function digest(string $salt, string $about, string $address): string
    {
        return hash('sha256', "{$salt}\n{$about}\n{$address}");
    }
}
