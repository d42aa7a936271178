<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Concerns\HasUuids;
use Illuminate\Database\Eloquent\Model;

/**
 * A pack that somebody has checked here.
 *
 * @property string $id
 * @property int $user_id
 * @property string $file_name
 * @property int $bytes
 * @property int $received_bytes
 * @property string|null $key the fingerprint that the person named
 * @property string $state receiving, checking, done or failed
 * @property array{fits: bool, key: string|null, lines: list<array{state: string, about: string, words: string}>}|null $found
 */
final class PackInspection extends Model
{
    use HasUuids;

    public const UPDATED_AT = null;

    /** So many lines of what was found are kept: of a pack in which everything is wrong more tell nothing. */
    public const MOST_LINES = 1_000;

    protected $table = 'pack_checks';

    protected $guarded = [];

    protected $casts = ['bytes' => 'integer', 'received_bytes' => 'integer', 'found' => 'array'];
}
