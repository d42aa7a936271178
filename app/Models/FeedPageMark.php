<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * By what a server knows a page of a feed that was drawn before (ETag, RFC 9110), and where its bytes are kept.
 *
 * @property int $id
 * @property int $connection_id
 * @property string $address SHA-256 of it, for it may hold what lets one in
 * @property string $mark
 * @property string $digest SHA-256 of the page
 * @property string $type
 * @property string $link
 */
final class FeedPageMark extends Model
{
    public $timestamps = false;

    protected $guarded = [];
}
