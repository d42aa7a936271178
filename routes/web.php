<?php

declare(strict_types=1);

use App\Http\Controllers\Sign\ReportLinkController;
use Illuminate\Support\Facades\Route;

// Whoever has a link to a report needs no account.
Route::get('/shared/{token}', [ReportLinkController::class, 'open'])->where('token', '[0-9a-z]{26}')->middleware('throttle:60,1');

Route::prefix('api/v1')->group(base_path('routes/api.php'));

// Everything else is the single page, which finds its own way.
Route::get('/{path?}', static fn() => view('page'))->where('path', '(?!api/).*');
