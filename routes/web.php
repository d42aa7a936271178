<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;

Route::prefix('api/v1')->group(base_path('routes/api.php'));

// Everything else is the single page, which finds its own way.
Route::get('/{path?}', static fn() => view('page'))->where('path', '(?!api/).*');
